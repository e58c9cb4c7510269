import { isRaw } from '@gangway/sidecar/facts';

const PLAIN = /\.(?:jpe?g|tiff?|heic|heif|hif|avif|png|webp)$/i;

export const isPicture = (path: string): boolean => isRaw(path) || PLAIN.test(path);
