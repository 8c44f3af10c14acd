import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Response, Router } from 'express';
import { z } from 'zod';
import {
  DEVICE_IDS,
  deviceAsk,
  deviceChange,
  type DeviceId,
  driverOf,
  driverSettings,
  driversOf,
} from '../../contract';
import { MOST_BYTES } from '../attachments/attachments';
import { MOST_MEGAPIXELS } from '../attachments/pictures';
import { contradicted, gone, notFound, parsed, stoppedComing, tooLarge, unreadable } from '../problem';
import type { Store } from '../store/store';
import { knownTo } from './known';

const uploadQuery = z.object({
  technicianId: z.uuid({ error: 'Who adds it: a technician of this shop.' }),
  name: z.string().trim().min(1, 'Name: what the file is called.').max(120, 'Name: at most 120 characters.'),
});

/** Sends a file. Where the disk fails, or the window that asked goes away, both are closed. */
async function sendFile(file: Readable, response: Response): Promise<void> {
  await pipeline(file, response).catch(() => response.destroy());
}

function deviceOf(id: string | undefined): DeviceId {
  const device = DEVICE_IDS.find((each) => each === id);
  if (!device) throw notFound('such device');
  return device;
}

/** A file on its way in. */
function takeFiles(router: Router, store: Store): void {
  const known = knownTo(store);
  router.post('/attachments', async (request, response) => {
    const { technicianId, name } = parsed(uploadQuery, request.query);
    known(technicianId);
    if (Number(request.headers['content-length'] ?? 0) > MOST_BYTES)
      throw tooLarge('The file is too large. A file can have at most 50 MB.');
    const kept = await store.attachments.keep(request, { name, technicianId });
    switch (kept.outcome) {
      case 'too large':
        throw tooLarge('The file is too large. A file can have at most 50 MB.');
      case 'empty':
        throw unreadable('The file is empty.', 'Send its bytes as the body.');
      case 'stopped coming':
        throw stoppedComing();
      case 'cut off':
        throw unreadable('The file broke off on the way.', 'Send it again. Nothing was stored.');
      case 'cannot be cleaned':
        throw unreadable(
          `A ${kept.what} of type ${kept.contentType} is not accepted: the place where it was taken cannot be removed from it.`,
          kept.what === 'film'
            ? 'Convert the film to a standard MP4 file, then add the converted file.'
            : 'Convert the picture to JPEG or PNG, then add the converted file.',
        );
      case 'cannot be read':
        throw unreadable(
          `The ${kept.what} is damaged and cannot be read.`,
          kept.what === 'film'
            ? 'Record it again, or save it again as MP4.'
            : 'Take it again, or save it again as JPEG or PNG.',
        );
      case 'too many pixels':
        throw tooLarge(`The picture is too large. A picture can have at most ${MOST_MEGAPIXELS} megapixels.`);
      case 'kept':
        response.status(201).json(kept.attachment);
    }
  });
}

/** A file, and its small picture, on their way out. */
function giveFiles(router: Router, store: Store): void {
  router.get('/attachments/:hash', async (request, response) => {
    const attachment = store.attachments.find(request.params.hash);
    if (!attachment) throw notFound('such file');
    const file = await open(store.attachments.pathOf(attachment.hash)).catch(() => null);
    if (file === null) throw gone(attachment.name);
    if ((await file.stat()).size !== attachment.bytes) {
      await file.close();
      throw gone(attachment.name);
    }
    const shown = attachment.contentType.startsWith('image/');
    response.setHeader('content-type', attachment.contentType);
    response.setHeader('content-length', attachment.bytes);
    response.setHeader('cache-control', 'private, max-age=31536000, immutable');
    // Whatever a file holds, it runs nothing here.
    response.setHeader('content-security-policy', "sandbox; default-src 'none'");
    response.setHeader(
      'content-disposition',
      `${shown ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(attachment.name)}`,
    );
    await sendFile(file.createReadStream(), response);
  });

  router.get('/attachments/:hash/thumb', async (request, response) => {
    const path = await store.attachments.thumb(request.params.hash);
    if (path === null) throw notFound('such picture');
    response.setHeader('cache-control', 'private, max-age=31536000, immutable');
    await sendFile(createReadStream(path), response.type('image/webp'));
  });
}

/** The devices: what they are set to, and what they are asked. */
function devicesThemselves(router: Router, store: Store): void {
  const known = knownTo(store);
  router.get('/devices', (_request, response) => {
    response.json(store.devices.states());
  });

  router.post('/devices/:id', (request, response) => {
    const id = deviceOf(request.params.id);
    const change = parsed(deviceChange, request.body);
    const driver = change.driver ?? store.devices.state(id).driver;
    if (driverOf(driver).device !== id)
      throw contradicted([
        { path: 'driver', message: `Connected by: one of ${driversOf(id).join(', ')} for this device.` },
      ]);
    const settings =
      change.settings === undefined ? undefined : parsed(driverSettings(driver).schema, change.settings);
    const state = store.devices.change(id, {
      ...(change.connected === undefined ? {} : { connected: change.connected }),
      ...(change.driver === undefined ? {} : { driver }),
      ...(settings === undefined ? {} : { settings }),
    });
    store.publish({ jobId: null, what: 'devices' });
    response.json(state);
  });

  router.post('/devices/:id/ask', async (request, response) => {
    const id = deviceOf(request.params.id);
    const asked = parsed(deviceAsk, request.body);
    if ('technicianId' in asked) known(asked.technicianId);
    response.writeHead(200, { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' });
    let gone = false;
    response.on('close', () => (gone = true));
    for await (const says of store.devices.ask(id, asked)) {
      if (gone) return;
      response.write(`${JSON.stringify(says)}\n`);
    }
    response.end();
    if (asked.ask === 'print label' || asked.ask === 'tell the owner')
      store.publish({ jobId: null, what: 'devices' });
  });
}

/** Outside devices, and the files they and the bench add. */
export function deviceRoutes(store: Store): Router {
  const router = Router();
  takeFiles(router, store);
  giveFiles(router, store);
  devicesThemselves(router, store);
  return router;
}
