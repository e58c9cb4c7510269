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
