import type { RequestHandler } from 'express';
import { cutText } from '@gangway/station';
import type { MayAsk } from './addresses.js';
import { Refusal } from './problems.js';

/** The name in a Host header or origin, without its port. */
const hostName = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

/**
 * Refuses requests addressed to another name (DNS rebinding) and writes begun by another
 * site's page.
 */
export function guard(mayAsk: MayAsk): RequestHandler {
  return (request, _response, next) => {
    const host = request.headers.host ?? '';
    const hosts = request.rawHeaders.filter((name, i) => i % 2 === 0 && /^host$/i.test(name));
    if (hosts.length > 1) throw new Refusal(400, 'The request is addressed to two names at once.');
    // The form that is meant for proxies: this is none.
    const target = /^[a-z][a-z\d+.-]*:\/\/([^/?#]*)/i.exec(request.originalUrl);
    if (target && target[1]!.toLowerCase() !== host.toLowerCase()) {
      throw new Refusal(
        421,
        'The request is meant for another server; this one passes nothing on.',
      );
    }
    if (!mayAsk(hostName(host))) {
      throw new Refusal(
        421,
        `This server does not answer to “${cutText(host, 100)}”; name it in ALLOWED_HOSTS.`,
      );
    }
    const { origin } = request.headers;
    const reads = request.method === 'GET' || request.method === 'HEAD';
    if (!reads && origin !== undefined && origin.replace(/^https?:\/\//, '') !== host) {
      throw new Refusal(403, 'Changes are taken from this server’s own pages only.');
    }
    next();
  };
}
