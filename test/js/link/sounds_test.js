import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { eachOnAPage, page } from "../support/page.js";
import { Sounds } from "../../../assets/js/link/sounds.js";

eachOnAPage({ html: "<div></div>" });

let made;
let sounds;

beforeEach(() => {
  made = [];
  globalThis.Audio = class {
    constructor(address) {
      Object.assign(this, { address, duration: 40, currentTime: 0, does: [], on: {} });
      made.push(this);
    }
    addEventListener(type, told) {
      this.on[type] = told;
    }
    play() {
      this.does.push(`play from ${this.currentTime}`);
      return Promise.resolve();
    }
    pause() {
      this.does.push("pause");
    }
  };
  sounds = new Sounds("/air/reed", { root: page.document }, () => {});
});

const hear = (from, i = 7) => {
  sounds.hear({ sound: { i, u: "/sounds/bell.ogg", v: 0.8, from } });
  made.at(-1)?.on.loadedmetadata();
};
const does = () => made.map((audio) => audio.does);

test("what began elsewhere goes on from there, and what is over by then is not heard", () => {
  hear(1500);
  assert.deepEqual(does(), [["play from 1.5"]]);
  hear(41000, 8);
  assert.deepEqual(does(), [["play from 1.5", "pause"], []]);
});

test("what is told again after a cut line goes on, and what is played once more begins anew", () => {
  hear(0);
  sounds.hear({ sound: { i: 7, u: "/sounds/bell.ogg", v: 0.8, from: 3000 } });
  assert.deepEqual(does(), [["play from 0"]]);
  hear(0);
  assert.deepEqual(does(), [["play from 0", "pause"], ["play from 0"]]);
});

test("what was stopped is heard again where it is told so", () => {
  hear(0);
  sounds.hear({ stop: 7 });
  hear(3000);
  assert.deepEqual(does(), [["play from 0", "pause"], ["play from 3"]]);
});
