import { keys } from "../house/keys.js";

keys({});
