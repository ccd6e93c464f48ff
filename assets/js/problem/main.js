// Where something did not work: what stands above it goes on.
import { follow } from "../house/desk.js";
import { keys } from "../house/keys.js";

follow(() => {});
keys({});
