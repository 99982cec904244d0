import type { Posture } from "./posture";

/** Tints is what a figure is drawn with. */
export type Tints = { skin: string; cloth: string; hair: string; line: string; mat: string };

const skins = ["#e8c4a2", "#c99670", "#9c6a48", "#f0d2b6", "#7a4f35"];
const cloths = ["#6f8f86", "#a07a6a", "#7b7fa3", "#93905f", "#8a6f8e", "#5f8299", "#9a7f4e"];
const hairs = ["#3a2a22", "#6b4a2e", "#241d1c", "#8a8580", "#a5783f"];

/** tintsOf is the tints of a place: people differ, and nothing is told by it. */
export function tintsOf(place: number, line: string, mat: string): Tints {
  return {
    skin: skins[(place * 3) % skins.length]!,
    cloth: cloths[(place * 5) % cloths.length]!,
    hair: hairs[(place * 2 + 1) % hairs.length]!,
    line,
    mat,
  };
}

// A figure is drawn in a box of 100 by 112, its seat at the bottom.
export const box = { width: 100, height: 112 };

/** draw draws somebody who sits and faces the teacher: their left is at the right of the drawing. */
export function draw(c: CanvasRenderingContext2D, p: Posture, tints: Tints): void {
  seat(c, tints);
  if (p.here === 0) return;
  if (p.here < 1) {
    walking(c, p, tints);
    return;
  }
  c.save();
  c.translate(50, 96);
  c.rotate(0.2 * p.lean);
  c.translate(-50, -96);
  legs(c, tints);
  const lift = 2.6 * p.breath + 5 * p.shoulders;
  torso(c, p, tints, lift);
  const head = { x: 50 + 3 * p.turn, y: 27 - 0.7 * lift + 7 * p.sunk };
  neck(c, tints, lift, head.y);
  face(c, p, tints, head);
  arms(c, p, tints, lift, head);
  c.restore();
}

function seat(c: CanvasRenderingContext2D, { mat }: Tints): void {
  c.fillStyle = mat;
  c.beginPath();
  c.roundRect(12, 98, 76, 9, 4.5);
  c.fill();
}

function legs(c: CanvasRenderingContext2D, { cloth, line }: Tints): void {
  c.fillStyle = cloth;
  c.strokeStyle = line;
  c.lineWidth = 1.2;
  c.beginPath();
  c.moveTo(34, 84);
  c.bezierCurveTo(16, 84, 6, 92, 11, 99);
  c.bezierCurveTo(20, 105, 80, 105, 89, 99);
  c.bezierCurveTo(94, 92, 84, 84, 66, 84);
  c.closePath();
  c.fill();
  c.stroke();
  c.beginPath(); // one shin before the other
  c.moveTo(30, 101);
  c.bezierCurveTo(42, 92, 58, 92, 74, 96);
  c.stroke();
}

function torso(c: CanvasRenderingContext2D, p: Posture, { cloth, line }: Tints, lift: number): void {
  const top = 47 - lift;
  const ribs = 2.2 * p.breath;
  const belly = 3.4 * p.breath - 4 * p.belly;
  const drop = 3.5 * p.shoulders; // lifted shoulders are drawn in
  c.fillStyle = cloth;
  c.strokeStyle = line;
  c.lineWidth = 1.2;
  c.beginPath();
  c.moveTo(44, top - 2);
  c.quadraticCurveTo(32 + drop, top, 29 + drop - ribs / 2, top + 6);
  c.bezierCurveTo(30 - ribs, 60, 32 - belly, 70, 33 - belly, 80);
  c.quadraticCurveTo(34, 90, 36, 92);
  c.lineTo(64, 92);
  c.quadraticCurveTo(66, 90, 67 + belly, 80);
  c.bezierCurveTo(68 + belly, 70, 70 + ribs, 60, 71 - drop + ribs / 2, top + 6);
  c.quadraticCurveTo(68 - drop, top, 56, top - 2);
  c.closePath();
  c.fill();
  c.stroke();
  c.globalAlpha = 0.35 + 0.4 * p.breath; // the fold of the cloth shows where the breath is
  c.beginPath();
  c.moveTo(42 - belly / 2, 78);
  c.quadraticCurveTo(50, 82 + belly / 2, 58 + belly / 2, 78);
  c.stroke();
  c.globalAlpha = 1;
}

function neck(c: CanvasRenderingContext2D, { skin, line }: Tints, lift: number, y: number): void {
  c.fillStyle = skin;
  c.strokeStyle = line;
  c.lineWidth = 1;
  c.beginPath();
  c.moveTo(45.5, y + 10);
  c.lineTo(45, 46 - lift);
  c.quadraticCurveTo(50, 49.5 - lift, 55, 46 - lift);
  c.lineTo(54.5, y + 10);
  c.closePath();
  c.fill();
  c.stroke();
}

function face(
  c: CanvasRenderingContext2D,
  p: Posture,
  { skin, hair, line }: Tints,
  { x, y }: { x: number; y: number },
): void {
  c.fillStyle = skin;
  c.strokeStyle = line;
  c.lineWidth = 1.1;
  c.beginPath();
  c.ellipse(x, y, 11.5, 13.5, 0, 0, 2 * Math.PI);
  c.fill();
  c.stroke();
  c.fillStyle = hair;
  c.beginPath();
  c.ellipse(x, y - 4.5, 12.2, 10.2, 0, Math.PI * 1.03, Math.PI * 1.97);
  c.quadraticCurveTo(x + 3 * p.turn, y - 8.5, x - 12, y - 5.5);
  c.fill();
  const look = x + 3.2 * p.turn;
  const eyes = y - 0.5 + 3 * p.sunk;
  c.strokeStyle = line;
  c.fillStyle = line;
  c.lineWidth = 1.3;
  for (const side of [-1, 1]) {
    const eye = look + 4.6 * side;
    c.beginPath();
    if (p.eyes > 0.45) c.ellipse(eye, eyes, 1.3, 1.5 * p.eyes, 0, 0, 2 * Math.PI);
    else c.arc(eye, eyes - 1, 1.9, 0.2 * Math.PI, 0.8 * Math.PI);
    if (p.eyes > 0.45) c.fill();
    else c.stroke();
    if (p.brows > 0.15) {
      c.beginPath();
      c.moveTo(eye - 2.4, eyes - 4.6 + (side > 0 ? 1.7 : -0.4) * p.brows);
      c.lineTo(eye + 2.4, eyes - 4.6 + (side > 0 ? -0.4 : 1.7) * p.brows);
      c.stroke();
    }
  }
  c.lineWidth = 1; // the nose
  c.beginPath();
  c.moveTo(look, eyes + 1);
  c.lineTo(look - 0.9, eyes + 4.4);
  c.lineTo(look + 0.9, eyes + 4.4);
  c.stroke();
  c.beginPath();
  const mouth = eyes + 8;
  if (p.mouth > 0.15) {
    c.ellipse(look, mouth, 2.4, 0.6 + 2.6 * p.mouth, 0, 0, 2 * Math.PI);
    c.fill();
  } else {
    c.moveTo(look - 2.4, mouth);
    c.quadraticCurveTo(look, mouth + (p.brows > 0.4 ? -0.8 : 0.9), look + 2.4, mouth);
    c.stroke();
  }
}

type Point = { x: number; y: number };

function arms(c: CanvasRenderingContext2D, p: Posture, tints: Tints, lift: number, head: Point): void {
  const shoulder = 50 - lift;
  const drop = 3.5 * p.shoulders;
  const knee = 88;
  limb(c, tints, { x: 69 - drop, y: shoulder }, { x: 80, y: 70 }, { x: 77, y: knee });
  const nose = { x: head.x + 3.2 * p.turn, y: head.y + 4 + 3 * p.sunk };
  if (p.forehead)
    limb(c, tints, { x: 31 + drop, y: shoulder }, { x: 22, y: 56 }, { x: head.x - 2, y: head.y - 6 });
  else if (p.hand === "") limb(c, tints, { x: 31 + drop, y: shoulder }, { x: 20, y: 70 }, { x: 23, y: knee });
  else hand(c, p.hand, tints, { x: 31 + drop, y: shoulder }, nose);
}

/** hand is the right hand at the nose: a thumb at the right nostril, a finger at the left one. What is closed is pressed. */
function hand(
  c: CanvasRenderingContext2D,
  closes: Posture["hand"],
  tints: Tints,
  from: Point,
  nose: Point,
): void {
  const palm = { x: nose.x - 1 + (closes === "left" ? 3.5 : closes === "right" ? -3.5 : 0), y: nose.y + 10 };
  limb(c, tints, from, { x: 19, y: 62 }, palm);
  const finger = (side: number, closed: boolean) => {
    c.lineCap = "round";
    for (const [width, colour] of [
      [4.4, tints.line],
      [2.8, tints.skin],
    ] as const) {
      c.lineWidth = width;
      c.strokeStyle = colour;
      c.beginPath();
      c.moveTo(palm.x + 2 * side, palm.y);
      c.lineTo(nose.x + (closed ? 2.2 : 8.5) * side, nose.y + (closed ? 0.4 : 3.5));
      c.stroke();
    }
  };
  finger(-1, closes === "right" || closes === "both");
  finger(1, closes === "left" || closes === "both");
}

function limb(
  c: CanvasRenderingContext2D,
  { cloth, skin, line }: Tints,
  from: Point,
  elbow: Point,
  to: Point,
): void {
  c.lineCap = "round";
  c.lineJoin = "round";
  for (const [width, colour] of [
    [10, line],
    [7.8, cloth],
  ] as const) {
    c.lineWidth = width;
    c.strokeStyle = colour;
    c.beginPath();
    c.moveTo(from.x, from.y);
    c.quadraticCurveTo(elbow.x, elbow.y, to.x, to.y);
    c.stroke();
  }
  c.fillStyle = skin;
  c.strokeStyle = line;
  c.lineWidth = 1;
  c.beginPath();
  c.ellipse(to.x, to.y, 4.6, 4, 0, 0, 2 * Math.PI);
  c.fill();
  c.stroke();
}

/** walking is somebody on the way to their place, who comes from the side. */
function walking(c: CanvasRenderingContext2D, p: Posture, { skin, cloth, hair, line }: Tints): void {
  const away = 90 * (1 - p.here);
  const step = Math.sin(p.here * 26);
  c.save();
  c.translate(away, 0);
  c.strokeStyle = line;
  c.fillStyle = cloth;
  c.lineWidth = 7;
  c.lineCap = "round";
  for (const side of [-1, 1]) {
    c.beginPath();
    c.moveTo(50, 62);
    c.lineTo(50 + 9 * side * step, 100);
    c.strokeStyle = cloth;
    c.stroke();
  }
  c.beginPath();
  c.roundRect(40, 24, 20, 44, 9);
  c.fill();
  c.fillStyle = skin;
  c.beginPath();
  c.ellipse(50, 12, 8.5, 10, 0, 0, 2 * Math.PI);
  c.fill();
  c.fillStyle = hair;
  c.beginPath();
  c.ellipse(50, 8, 9, 7, 0, Math.PI, 2 * Math.PI);
  c.fill();
  c.restore();
}
