export { paidBack, paybackOfJob, usualCostMinor } from './payback';
export {
  type Blade,
  BLADE_FORMS,
  type BladeForm,
  type Driver,
  type FrictionBall,
  type Holder,
  NO_TOOLS,
  type OpenerDie,
  type ShopTools,
  TIP_FORMS,
  TOOL_JUDGES,
  TOOL_KINDS,
  type ToolBodies,
  type ToolKind,
  toolsFor,
  type Wrench,
} from './tools';
