import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";

follow(() => {});
keys({});
