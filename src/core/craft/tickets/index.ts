export { makeTicket, readTicket } from './tickets';
