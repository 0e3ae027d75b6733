// What lives only in the page. Everything that is reckoned is reckoned by the
// server.
import "./swap.js";
import "./keep.js";
import "./keys.js";
import "./light.js";
import "./byhand.js";
import "./turning.js";
import "./pointing.js";
import "./cutting.js";
import "./shell.js";
import "./atbench.js";
import "./picture.js";
