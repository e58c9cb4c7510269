import type { RequestHandler } from 'express';

/** What only a page’s own sensors, camera and wake lock may do; everything else is shut for all. */
const OWN = ['accelerometer', 'camera', 'gyroscope', 'magnetometer', 'screen-wake-lock'];
const SHUT = [
  'autoplay',
  'browsing-topics',
  'captured-surface-control',
  'compute-pressure',
  'deferred-fetch',
  'display-capture',
  'encrypted-media',
  'fullscreen',
  'gamepad',
  'geolocation',
  'hid',
  'identity-credentials-get',
  'idle-detection',
  'local-fonts',
  'microphone',
  'midi',
  'otp-credentials',
  'payment',
  'picture-in-picture',
  'publickey-credentials-create',
  'publickey-credentials-get',
  'serial',
  'speaker-selection',
  'storage-access',
  'sync-xhr',
  'usb',
  'window-management',
  'xr-spatial-tracking',
];

/** Goes with every answer, those included that are refused before a route is found. */
export const EVERY_ANSWER: readonly (readonly [string, string])[] = [
  ['X-Content-Type-Options', 'nosniff'],
  [
    'Permissions-Policy',
    [...OWN.map((name) => `${name}=(self)`), ...SHUT.map((name) => `${name}=()`)].join(', '),
  ],
];

export const everyAnswer: RequestHandler = (_request, response, next) => {
  for (const [name, value] of EVERY_ANSWER) response.setHeader(name, value);
  next();
};
