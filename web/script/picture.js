// A picture of the box as PNG: the server's drawing, painted large on a canvas and saved.
import { tell } from "./page.js";

const wide = 1600;

// painted gives a drawing as a canvas, on white.
export async function painted(address) {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error(answer.status);
  const svg = new DOMParser().parseFromString(await answer.text(), "image/svg+xml").documentElement;
  const [, , w, h] = svg.getAttribute("viewBox").split(" ").map(Number);
  svg.setAttribute("width", wide);
  svg.setAttribute("height", Math.round(wide * h / w));
  const image = new Image();
  image.src = `data:image/svg+xml,${encodeURIComponent(new XMLSerializer().serializeToString(svg))}`;
  await image.decode();
  const canvas = Object.assign(document.createElement("canvas"), { width: wide, height: Math.round(wide * h / w) });
  const paint = canvas.getContext("2d");
  paint.fillStyle = "#fff";
  paint.fillRect(0, 0, canvas.width, canvas.height);
  paint.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas;
}

document.addEventListener("click", async (e) => {
  const button = e.target.closest && e.target.closest("[data-png]");
  if (!button) return;
  try {
    const file = await painted(button.dataset.png);
    const link = Object.assign(document.createElement("a"), { href: file.toDataURL("image/png"), download: button.dataset.name });
    link.click();
    button.dataset.saved = `${file.width} × ${file.height}`;
  } catch {
    tell("The picture was not saved. Reload the page and try again.");
  }
});
