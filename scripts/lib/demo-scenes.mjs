/** What the demo's measuring pictures show: drawn in a browser, with detail all over. Runs there. */

/** The inside of the ropewalk: boards, beams, posts and ropes, running away to the far door. */
export const ropewalk = ({ width, height }) => {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height });
  const c = canvas.getContext('2d');
  let state = 7;
  const draw = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
  const [vx, vy] = [width * 0.46, height * 0.5];
  c.fillStyle = '#6b5d49';
  c.fillRect(0, 0, width, height);
  /** A band from a place on the frame towards the vanishing point. */
  const board = (x0, y0, x1, y1, tone) => {
    const near = 0.04;
    c.fillStyle = tone;
    c.beginPath();
    c.moveTo(x0, y0);
    c.lineTo(x1, y1);
    c.lineTo(vx + near * (x1 - vx), vy + near * (y1 - vy));
    c.lineTo(vx + near * (x0 - vx), vy + near * (y0 - vy));
    c.fill();
  };
  const grey = (from, to, warm = 10) => {
    const at = Math.round(from + (to - from) * draw());
    return `rgb(${at + warm},${at},${Math.max(0, at - warm)})`;
  };
  const far = 2.4 * width;
  for (let x = -far; x < width + far; x += 46) board(x, height * 1.5, x + 44, height * 1.5, grey(72, 128, 16)); // prettier-ignore
  for (let x = -far; x < width + far; x += 90) board(x, -height * 0.6, x + 84, -height * 0.6, grey(44, 84, 12)); // prettier-ignore
  for (let y = -height * 0.7; y < height * 1.6; y += 40) {
    board(-width * 0.35, y, -width * 0.35, y + 37, grey(110, 168, 14));
    board(width * 1.3, y, width * 1.3, y + 37, grey(92, 150, 14));
  }
  // Posts and beams, nearer ones over farther ones.
  for (const k of [0.09, 0.12, 0.17, 0.25, 0.38, 0.6, 0.95]) {
    const [left, right] = [vx - k * width * 0.78, vx + k * width * 0.82];
    const [top, foot] = [vy - k * height * 0.95, vy + k * height * 0.9];
    c.fillStyle = '#3d3327';
    c.fillRect(left, top, right - left, k * 44);
    c.fillRect(left, top, k * 40, foot - top);
    c.fillRect(right - k * 40, top, k * 40, foot - top);
    c.fillStyle = '#d7c79c';
    c.fillRect(left + k * 60, vy + k * height * 0.35, k * 230, k * 18);
    c.fillRect(right - k * 290, vy + k * height * 0.42, k * 210, k * 18);
  }
  c.lineWidth = 5;
  for (let i = 0; i < 7; i++) {
    c.strokeStyle = i % 2 === 0 ? '#e2d4ad' : '#b49a68';
    c.setLineDash([9, 3]);
    c.beginPath();
    c.moveTo(width * (0.05 + 0.16 * i), height);
    c.quadraticCurveTo(vx + (i - 3) * 60, vy + height * 0.22, vx + (i - 3) * 6, vy + 12);
    c.stroke();
  }
  c.setLineDash([]);
  c.fillStyle = '#f1ead2';
  c.fillRect(vx - 20, vy - 26, 40, 46);
  // Grain of the wood, marks of tools.
  for (let i = 0; i < 16_000; i++) {
    const [x, y] = [draw() * width, draw() * height];
    const light = draw() < 0.5;
    c.fillStyle = light ? 'rgba(240,226,196,0.28)' : 'rgba(20,16,12,0.3)';
    c.fillRect(x, y, 2 + 9 * draw(), 2 + 3 * draw());
  }
  return canvas.toDataURL('image/png');
};

/** A brick wall with windows, cords and a notice board: detail to the very corners. */
export const wall = ({ width, height }) => {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height });
  const c = canvas.getContext('2d');
  let state = 11;
  const draw = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
  c.fillStyle = '#b9b0a0';
  c.fillRect(0, 0, width, height);
  const [across, high] = [52, 24];
  for (let row = 0; row * high < height; row++) {
    for (let column = -1; column * across < width; column++) {
      const tone = 96 + 70 * draw();
      c.fillStyle = `rgb(${tone + 34},${tone},${tone - 14})`;
      c.fillRect(column * across + (row % 2) * 26 + 2, row * high + 2, across - 4, high - 4);
    }
  }
  for (let x = 0.06; x < 1; x += 0.235) {
    for (const y of [0.08, 0.4, 0.72]) {
      const [left, top, w, h] = [x * width, y * height, width * 0.12, height * 0.2];
      c.fillStyle = '#ece6d6';
      c.fillRect(left - 8, top - 8, w + 16, h + 16);
      c.fillStyle = '#22272a';
      c.fillRect(left, top, w, h);
      c.fillStyle = '#ece6d6';
      for (let i = 1; i < 4; i++) c.fillRect(left + (i * w) / 4 - 2, top, 4, h);
      for (let i = 1; i < 5; i++) c.fillRect(left, top + (i * h) / 5 - 2, w, 4);
    }
  }
  c.strokeStyle = '#171512';
  for (let i = 0; i < 14; i++) {
    c.lineWidth = 2 + (i % 3);
    c.beginPath();
    c.moveTo(draw() * width, 0);
    c.bezierCurveTo(draw() * width, draw() * height, draw() * width, draw() * height, draw() * width, height); // prettier-ignore
    c.stroke();
  }
  for (let i = 0; i < 26_000; i++) {
    c.fillStyle = draw() < 0.5 ? 'rgba(255,248,232,0.34)' : 'rgba(16,12,8,0.36)';
    c.fillRect(draw() * width, draw() * height, 2 + 5 * draw(), 2 + 3 * draw());
  }
  return canvas.toDataURL('image/png');
};
