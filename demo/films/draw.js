// Draws a horse that walks past and films it: the demo's clips. The hooves land as they
// are told to, frame for frame, so that what the footfall timer should say is known.
import { BufferTarget, CanvasSource, Mp4OutputFormat, Output } from '/mediabunny.min.mjs'

const width = 640
const height = 360
const ground = 318

/** Where the four feet are in a stride, from the landing of the near hind foot. */
function phases({ fraction }) {
  return { 'near hind': 0, 'near fore': fraction, 'off hind': 0.5, 'off fore': 0.5 + fraction }
}

/** So much of a stride a hoof is on the ground. */
const stance = 0.62

/** A hoof in its stride, from where the body carries it: 0 is its landing. */
function hoof(phase, reach) {
  const p = phase - Math.floor(phase)
  if (p < stance) return { x: reach * (0.5 - p / stance), y: 0 }
  const s = (p - stance) / (1 - stance)
  const eased = s * s * (3 - 2 * s)
  return { x: reach * (eased - 0.5), y: -26 * Math.sin(Math.PI * s) }
}

/** The joint of a leg of two bones; it bends backward (1) or forward (-1). */
function joint(from, to, upper, lower, bend) {
  const dx = to.x - from.x
  const dy = to.y - from.y
  const d = Math.min(Math.hypot(dx, dy), upper + lower - 0.5)
  const a = (upper * upper - lower * lower + d * d) / (2 * d)
  const h = Math.sqrt(Math.max(0, upper * upper - a * a))
  return { x: from.x + (a * dx) / d + (bend * h * dy) / d, y: from.y + (a * dy) / d - (bend * h * dx) / d }
}

function leg(c, hip, foot, bend, colour, wide) {
  const knee = joint(hip, { x: foot.x, y: foot.y - 10 }, 62, 58, bend)
  c.strokeStyle = c.fillStyle = colour
  c.lineCap = 'round'
  c.lineWidth = wide
  c.beginPath()
  c.moveTo(hip.x, hip.y)
  c.lineTo(knee.x, knee.y)
  c.stroke()
  c.lineWidth = wide * 0.55
  c.beginPath()
  c.moveTo(knee.x, knee.y)
  c.lineTo(foot.x, foot.y - 10)
  c.stroke()
  c.beginPath()
  c.moveTo(foot.x - 8, foot.y)
  c.lineTo(foot.x + 11, foot.y)
  c.lineTo(foot.x + 4, foot.y - 13)
  c.lineTo(foot.x - 5, foot.y - 13)
  c.fill()
}

function landscape(c, gone, posts) {
  c.fillStyle = '#d6c8ae'
  c.fillRect(0, 0, width, height)
  c.fillStyle = '#b9a983'
  c.fillRect(0, 150, width, height)
  c.fillStyle = '#a28f68'
  c.fillRect(0, ground - 8, width, height)
  c.fillStyle = '#7d6c4b'
  for (const x of posts) {
    const at = (((x - gone) % 900) + 900) % 900 - 60
    c.fillRect(at, 120, 9, 130)
  }
  c.fillRect(0, 140, width, 6)
  c.fillRect(0, 190, width, 6)
  c.fillStyle = '#8d7b56'
  for (let i = 0; i < 40; i++) {
    const at = (((i * 97.3 - gone) % 900) + 900) % 900 - 60
    c.fillRect(at, ground + 8 + ((i * 37) % 26), 16, 2)
  }
}

function body(c, bob) {
  const b = 168 + bob
  c.fillStyle = '#3a332d'
  c.beginPath() // trunk
  c.moveTo(215, b - 20)
  c.bezierCurveTo(250, b - 46, 330, b - 34, 400, b - 40)
  c.bezierCurveTo(440, b - 42, 452, b - 4, 440, b + 26)
  c.bezierCurveTo(400, b + 52, 290, b + 58, 232, b + 40)
  c.bezierCurveTo(204, b + 24, 200, b + 4, 215, b - 20)
  c.fill()
  c.beginPath() // neck and head
  c.moveTo(392, b - 36)
  c.bezierCurveTo(430, b - 70, 452, b - 100, 476, b - 112)
  c.lineTo(486, b - 126)
  c.lineTo(494, b - 108)
  c.lineTo(538, b - 66)
  c.bezierCurveTo(544, b - 52, 530, b - 44, 518, b - 50)
  c.lineTo(488, b - 76)
  c.bezierCurveTo(470, b - 40, 456, b - 8, 440, b + 14)
  c.fill()
  c.strokeStyle = '#3a332d'
  c.lineWidth = 14
  c.lineCap = 'round'
  c.beginPath() // tail
  c.moveTo(214, b - 12)
  c.bezierCurveTo(190, b + 10, 190, b + 60, 182, b + 92)
  c.stroke()
}

// It goes to the right: the off side is nearer.
function frame(c, t, told, posts) {
  const stride = t / told.stride
  const reach = 92
  landscape(c, (reach / stance) * stride, posts)
  const at = phases(told)
  const bob = 3 * Math.sin(4 * Math.PI * stride)
  const legs = [
    ['near hind', 236, 1, '#6f675c'],
    ['near fore', 414, -1, '#6f675c'],
    ['off hind', 244, 1, '#2b2621'],
    ['off fore', 424, -1, '#2b2621'],
  ]
  legs.forEach(([name, x, bend, colour], i) => {
    if (i === 2) body(c, bob)
    const f = hoof(stride - at[name], reach)
    leg(c, { x, y: 196 + bob }, { x: x + f.x, y: ground + f.y - (i < 2 ? 5 : 0) }, bend, colour, 26)
  })
}

/** Films a gait, and answers with the film's bytes. */
export async function film(told) {
  const canvas = new OffscreenCanvas(width, height)
  const c = canvas.getContext('2d')
  let seed = told.seed
  const chance = () => (seed = (seed * 16807) % 2147483647) / 2147483647
  const posts = Array.from({ length: 6 }, (_, i) => i * 150 + chance() * 40)
  const output = new Output({ format: new Mp4OutputFormat({ fastStart: 'in-memory' }), target: new BufferTarget() })
  const source = new CanvasSource(canvas, { codec: told.codec, bitrate: 300_000, keyFrameInterval: 1 })
  output.addVideoTrack(source, { frameRate: told.fps })
  await output.start()
  for (let i = 0; i < told.fps * told.seconds; i++) {
    frame(c, i / told.fps, told, posts)
    await source.add(i / told.fps, 1 / told.fps)
  }
  await output.finalize()
  return new Uint8Array(output.target.buffer)
}
