// The path tracer as it was before lights were chosen by what they promise, bundled; rows of the benchmark measure against it. Not to be changed.
/** The first three of a list of numbers. */
const vec3Of = (v) => [
	v[0],
	v[1],
	v[2]
];
/** A function of each of three numbers and its axis. */
const mapVec = (v, f) => [
	f(v[0], 0),
	f(v[1], 1),
	f(v[2], 2)
];
const sub = (a, b) => [
	a[0] - b[0],
	a[1] - b[1],
	a[2] - b[2]
];
const scale = (a, k) => [
	a[0] * k,
	a[1] * k,
	a[2] * k
];
const cross = (a, b) => [
	a[1] * b[2] - a[2] * b[1],
	a[2] * b[0] - a[0] * b[2],
	a[0] * b[1] - a[1] * b[0]
];
const length = (a) => Math.hypot(a[0], a[1], a[2]);
/** `a` at length 1; a zero vector stays zero. */
const normalize = (a) => {
	const l = length(a);
	return l > 0 ? scale(a, 1 / l) : a;
};
const min = (a, b) => [
	Math.min(a[0], b[0]),
	Math.min(a[1], b[1]),
	Math.min(a[2], b[2])
];
const max = (a, b) => [
	Math.max(a[0], b[0]),
	Math.max(a[1], b[1]),
	Math.max(a[2], b[2])
];
/** The six ways out of a cube. */
const FACE_DIRECTIONS = [
	[
		1,
		0,
		0
	],
	[
		-1,
		0,
		0
	],
	[
		0,
		1,
		0
	],
	[
		0,
		-1,
		0
	],
	[
		0,
		0,
		1
	],
	[
		0,
		0,
		-1
	]
];
// node_modules/gl-matrix/esm/mat4.js
/**
* Inverts a mat4
*
* @param {mat4} out the receiving matrix
* @param {ReadonlyMat4} a the source matrix
* @returns {mat4 | null} out, or null if source matrix is not invertible
*/
function invert(out, a) {
	var a00 = a[0], a01 = a[1], a02 = a[2], a03 = a[3];
	var a10 = a[4], a11 = a[5], a12 = a[6], a13 = a[7];
	var a20 = a[8], a21 = a[9], a22 = a[10], a23 = a[11];
	var a30 = a[12], a31 = a[13], a32 = a[14], a33 = a[15];
	var b00 = a00 * a11 - a01 * a10;
	var b01 = a00 * a12 - a02 * a10;
	var b02 = a00 * a13 - a03 * a10;
	var b03 = a01 * a12 - a02 * a11;
	var b04 = a01 * a13 - a03 * a11;
	var b05 = a02 * a13 - a03 * a12;
	var b06 = a20 * a31 - a21 * a30;
	var b07 = a20 * a32 - a22 * a30;
	var b08 = a20 * a33 - a23 * a30;
	var b09 = a21 * a32 - a22 * a31;
	var b10 = a21 * a33 - a23 * a31;
	var b11 = a22 * a33 - a23 * a32;
	var det = b00 * b11 - b01 * b10 + b02 * b09 + b03 * b08 - b04 * b07 + b05 * b06;
	if (!det) return null;
	det = 1 / det;
	out[0] = (a11 * b11 - a12 * b10 + a13 * b09) * det;
	out[1] = (a02 * b10 - a01 * b11 - a03 * b09) * det;
	out[2] = (a31 * b05 - a32 * b04 + a33 * b03) * det;
	out[3] = (a22 * b04 - a21 * b05 - a23 * b03) * det;
	out[4] = (a12 * b08 - a10 * b11 - a13 * b07) * det;
	out[5] = (a00 * b11 - a02 * b08 + a03 * b07) * det;
	out[6] = (a32 * b02 - a30 * b05 - a33 * b01) * det;
	out[7] = (a20 * b05 - a22 * b02 + a23 * b01) * det;
	out[8] = (a10 * b10 - a11 * b08 + a13 * b06) * det;
	out[9] = (a01 * b08 - a00 * b10 - a03 * b06) * det;
	out[10] = (a30 * b04 - a31 * b02 + a33 * b00) * det;
	out[11] = (a21 * b02 - a20 * b04 - a23 * b00) * det;
	out[12] = (a11 * b07 - a10 * b09 - a12 * b06) * det;
	out[13] = (a00 * b09 - a01 * b07 + a02 * b06) * det;
	out[14] = (a31 * b01 - a30 * b03 - a32 * b00) * det;
	out[15] = (a20 * b03 - a21 * b01 + a22 * b00) * det;
	return out;
}
/** The eight corners of a box: bit 0 of the index tells low from high along X, bit 1 along Y, bit 2 along Z. */
const boxCorners = ({ min, size }) => Array.from({ length: 8 }, (_, k) => [
	min[0] + (k & 1 ? size[0] : 0),
	min[1] + (k & 2 ? size[1] : 0),
	min[2] + (k & 4 ? size[2] : 0)
]);
const blank = () => new Array(16).fill(0);
/** The inverse; throws when the matrix has none (a zero scale). */
function invertMat(a) {
	const r = invert(blank(), a);
	if (!r) throw new RangeError("invertMat: the matrix cannot be inverted, because one of its scales is zero.");
	return r;
}
const transformPoint = (m, p) => [
	m[0] * p[0] + m[4] * p[1] + m[8] * p[2] + m[12],
	m[1] * p[0] + m[5] * p[1] + m[9] * p[2] + m[13],
	m[2] * p[0] + m[6] * p[1] + m[10] * p[2] + m[14]
];
/** What a box takes up once a matrix has placed it: the extent of its eight corners. */
function placedExtent(m, box) {
	const corners = boxCorners(box).map((c) => transformPoint(m, c));
	return {
		lo: corners.reduce(min),
		hi: corners.reduce(max)
	};
}
/** 32-bit mixing of an integer (the finaliser of MurmurHash3). */
function hash32(x) {
	x = Math.imul(x ^ x >>> 16, 2246822507);
	x = Math.imul(x ^ x >>> 13, 3266489909);
	return (x ^ x >>> 16) >>> 0;
}
const swatchDefaults = {
	emissive: 0,
	roughness: .8,
	metalness: 0,
	opacity: 1,
	slot: "",
	helper: false
};
const makeSwatch = (byte, name, colour, more = {}) => ({
	...swatchDefaults,
	...more,
	byte,
	name,
	colour: colour.toLowerCase()
});
/** sRGB 0–1 as linear light (IEC 61966-2-1). */
const toLinear = (c) => c <= .04045 ? c / 12.92 : ((c + .055) / 1.055) ** 2.4;
/** The bytes of `#rrggbb`. */
function hexBytes(hex) {
	const n = Number.parseInt(hex.slice(1), 16);
	return [
		n >> 16,
		n >> 8 & 255,
		n & 255
	];
}
const hexToLinear = (hex) => {
	const [r, g, b] = hexBytes(hex);
	return [
		toLinear(r / 255),
		toLinear(g / 255),
		toLinear(b / 255)
	];
};
/** A table with a number for each value; 0 unless said. */
const byteTable = (of = () => 0) => Uint8Array.from({ length: 256 }, (_, byte) => of(byte));
/** What unlisted bytes look like: a plain middle grey that no palette of ours uses by accident. */
const UNKNOWN_SWATCH = makeSwatch(0, "unlisted", "#8a8580");
const tables = /* @__PURE__ */ new WeakMap();
/** The palette by byte; memoised for as long as the palette lives. */
function paletteTable(palette) {
	let t = tables.get(palette);
	if (!t) {
		const swatches = new Array(256).fill(UNKNOWN_SWATCH);
		const linear = /* @__PURE__ */ new Float32Array(768);
		const transparent = byteTable();
		for (const s of palette.swatches) swatches[s.byte] = s;
		swatches.forEach((s, i) => {
			const c = hexToLinear(s.colour);
			linear.set(c, i * 3);
			transparent[i] = s.opacity < 1 ? 1 : 0;
		});
		t = {
			swatches,
			linear,
			transparent
		};
		tables.set(palette, t);
	}
	return t;
}
const makeTraced = ({ x, y, width, height }, samples) => {
	const pixels = width * height;
	return {
		x,
		y,
		width,
		height,
		samples,
		light: new Float32Array(pixels * 3),
		cover: new Float32Array(pixels),
		albedo: new Float32Array(pixels * 3),
		normal: new Float32Array(pixels * 3),
		depth: new Float32Array(pixels)
	};
};
const columnsOf = (width) => Math.ceil(width / 64);
const makeFilm = (width, height) => ({
	width,
	height,
	tiles: new Array(columnsOf(width) * columnsOf(height)).fill(null)
});
/** The tiles of a picture, those in its middle first. */
function tileAreas(width, height) {
	const areas = [];
	for (let y = 0; y < height; y += 64) for (let x = 0; x < width; x += 64) areas.push({
		x,
		y,
		width: Math.min(64, width - x),
		height: Math.min(64, height - y)
	});
	const away = (a) => Math.hypot(a.x + a.width / 2 - width / 2, a.y + a.height / 2 - height / 2);
	return areas.sort((a, b) => away(a) - away(b) || a.y - b.y || a.x - b.x);
}
/** Adds samples of one tile. @throws RangeError when they are not of a whole tile, or when there is no memory for it */
function addTraced(film, more) {
	const index = more.y / 64 * columnsOf(film.width) + more.x / 64;
	const tile = film.tiles[index];
	if (tile === void 0 || tile && tile.light.length !== more.light.length) throw new RangeError(`Samples at ${more.x}, ${more.y} are not those of a tile.`);
	const sum = tile ?? makeTraced(more, 0);
	for (const layer of [
		"light",
		"cover",
		"albedo",
		"normal",
		"depth"
	]) {
		const into = sum[layer], from = more[layer];
		for (let i = 0; i < into.length; i++) into[i] += from[i];
	}
	film.tiles[index] = {
		...sum,
		samples: sum.samples + more.samples
	};
}
/** Places at which a cut is tried along an axis. */
const BINS = 12;
function instanceTree(instances) {
	const n = instances.length;
	const pairs = {
		boxes: new Float64Array(Math.max(1, 2 * n) * 6),
		links: new Int32Array(Math.max(1, 2 * n))
	};
	const lows = Float64Array.from(instances.flatMap((i) => [...i.lo])), highs = Float64Array.from(instances.flatMap((i) => [...i.hi]));
	if (n > 0) new Builder(pairs, lows, highs).build(n);
	return widened(pairs, instances);
}
/** A tree of pairs as one of four children a node, its leaves numbered as they are come to. */
function widened(pairs, instances) {
	const n = instances.length;
	const boxes = [], links = [];
	const order = new Int32Array(n), toLocal = new Float64Array(n * 12);
	const grids = [];
	let leaves = 0;
	const area = (node) => {
		const [x, y, z] = [
			0,
			1,
			2
		].map((a) => pairs.boxes[node * 6 + 3 + a] - pairs.boxes[node * 6 + a]);
		return x * y + y * z + z * x;
	};
	const leaf = (instance) => {
		const m = instances[instance].toLocal;
		for (let column = 0; column < 4; column++) toLocal.set(m.subarray(column * 4, column * 4 + 3), leaves * 12 + column * 3);
		order[leaves] = instance;
		grids.push(instances[instance].shape.grid);
		return -1 - leaves++;
	};
	const newNode = () => {
		for (let i = 0; i < 12; i++) boxes.push(Infinity);
		for (let i = 0; i < 12; i++) boxes.push(-Infinity);
		return links.push(0, 0, 0, 0) / 4 - 1;
	};
	const root = newNode();
	const open = n > 0 ? [[0, root]] : [];
	for (let next = open.pop(); next; next = open.pop()) {
		const [pair, node] = next;
		const children = [pair];
		for (;;) {
			const inner = children.filter((c) => pairs.links[c] >= 0);
			if (inner.length === 0 || children.length === 4) break;
			const widest = inner.reduce((a, b) => area(b) > area(a) ? b : a);
			children.splice(children.indexOf(widest), 1, pairs.links[widest], pairs.links[widest] + 1);
		}
		children.forEach((c, k) => {
			for (let a = 0; a < 6; a++) boxes[node * 24 + a * 4 + k] = pairs.boxes[c * 6 + a];
			const link = pairs.links[c];
			if (link < 0) links[node * 4 + k] = leaf(-1 - link);
			else {
				const below = newNode();
				links[node * 4 + k] = below;
				open.push([c, below]);
			}
		});
	}
	return {
		boxes: Float64Array.from(boxes),
		links: Int32Array.from(links),
		order,
		grids,
		toLocal
	};
}
/** How much wider than exact a box is, so that rounding never cuts anything off. */
const SLACK = 2 ** -23;
var Builder = class {
	tree;
	lows;
	highs;
	used = 1;
	cost = new Float64Array(BINS);
	order;
	constructor(tree, lows, highs) {
		this.tree = tree;
		this.lows = lows;
		this.highs = highs;
		this.order = Int32Array.from({ length: lows.length / 3 }, (_, i) => i);
	}
	build(n) {
		const open = [[
			0,
			0,
			n
		]];
		for (let next = open.pop(); next; next = open.pop()) {
			const [node, from, to] = next;
			this.bound(node, from, to);
			if (to - from === 1) {
				this.tree.links[node] = -1 - this.order[from];
				continue;
			}
			const middle = this.cut(from, to);
			this.tree.links[node] = this.used;
			open.push([
				this.used,
				from,
				middle
			], [
				this.used + 1,
				middle,
				to
			]);
			this.used += 2;
		}
	}
	bound(node, from, to) {
		const { boxes } = this.tree;
		for (let a = 0; a < 3; a++) {
			let lo = Infinity, hi = -Infinity;
			for (let k = from; k < to; k++) {
				const i = this.order[k] * 3 + a;
				lo = Math.min(lo, this.lows[i]);
				hi = Math.max(hi, this.highs[i]);
			}
			boxes[node * 6 + a] = lo - Math.abs(lo) * SLACK;
			boxes[node * 6 + 3 + a] = hi + Math.abs(hi) * SLACK;
		}
	}
	middleOf(k, axis) {
		const i = this.order[k] * 3 + axis;
		return this.lows[i] + this.highs[i];
	}
	/** Puts the instances of a node on two sides of its best cut; gives where the second begins. */
	cut(from, to) {
		let best = Infinity, bestAxis = 0, bestAt = 0;
		for (let axis = 0; axis < 3; axis++) {
			let lo = Infinity, hi = -Infinity;
			for (let k = from; k < to; k++) {
				lo = Math.min(lo, this.middleOf(k, axis));
				hi = Math.max(hi, this.middleOf(k, axis));
			}
			if (!(hi > lo)) continue;
			this.costs(from, to, axis, lo, hi);
			for (let b = 1; b < BINS; b++) {
				if (this.cost[b] >= best) continue;
				best = this.cost[b];
				bestAxis = axis;
				bestAt = lo + (hi - lo) * b / BINS;
			}
		}
		if (best === Infinity) return from + to >> 1;
		const { order } = this;
		let left = from, right = to;
		while (left < right) if (this.middleOf(left, bestAxis) < bestAt) left++;
		else {
			right--;
			[order[left], order[right]] = [order[right], order[left]];
		}
		return left === from || left === to ? from + to >> 1 : left;
	}
	/** What a cut before each bin would cost: instances on either side times the area of the box around them. */
	costs(from, to, axis, lo, hi) {
		const bins = Array.from({ length: BINS }, () => new Side());
		for (let k = from; k < to; k++) bins[Math.min(11, Math.floor((this.middleOf(k, axis) - lo) / (hi - lo) * BINS))].take(this.lows, this.highs, this.order[k] * 3, 1);
		this.cost.fill(0);
		const left = new Side(), right = new Side();
		for (let b = 1; b < BINS; b++) {
			left.join(bins[b - 1]);
			this.cost[b] += left.cost;
		}
		for (let b = 11; b > 0; b--) {
			right.join(bins[b]);
			this.cost[b] += right.cost;
		}
	}
};
/** Some instances and the box around them. */
var Side = class {
	n = 0;
	lo = [
		Infinity,
		Infinity,
		Infinity
	];
	hi = [
		-Infinity,
		-Infinity,
		-Infinity
	];
	take(lows, highs, o, n) {
		this.n += n;
		for (let a = 0; a < 3; a++) {
			this.lo[a] = Math.min(this.lo[a], lows[o + a]);
			this.hi[a] = Math.max(this.hi[a], highs[o + a]);
		}
	}
	join(other) {
		this.take(other.lo, other.hi, 0, other.n);
	}
	/** Infinite for nothing: such a cut is none. */
	get cost() {
		if (this.n === 0) return Infinity;
		const [x, y, z] = [
			0,
			1,
			2
		].map((a) => this.hi[a] - this.lo[a]);
		return this.n * (x * y + y * z + z * x);
	}
};
/** Lays out the filled part of a grid; null when it is empty. 10 ms at 128³, 120 ms at 256³. */
function rayGridOf(grid) {
	const box = grid.contentBox();
	if (!box) return null;
	const size = mapVec(box.size, (s) => s + 3 & -4);
	const cells = grid.readBox({
		min: box.min,
		size
	});
	const blocks = [
		size[0] / 4,
		size[1] / 4,
		size[2] / 4
	];
	const bits = bitsOf(cells, size, blocks);
	const count = blocks[0] * blocks[1] * blocks[2];
	const reach = new Uint8Array(count * 8);
	for (let octant = 0; octant < 8; octant++) measureReach(bits, blocks, octant, reach.subarray(octant * count, (octant + 1) * count));
	return {
		min: box.min,
		size,
		cells,
		bits,
		blocks,
		reach
	};
}
/** Which cells of each block are filled: {@link RayGrid.bits}. */
function bitsOf(cells, size, [bx, by, bz]) {
	const bits = new Int32Array(bx * by * bz * 2);
	const words = new Int32Array(cells.buffer, cells.byteOffset, cells.length >> 2);
	for (let z = 0, i = 0; z < size[2]; z++) for (let y = 0; y < size[1]; y++) {
		const row = ((z >> 2) * by + (y >> 2)) * bx;
		for (let x = 0; x < bx; x++, i++) {
			const w = words[i];
			if (w === 0) continue;
			const four = (w & 255 ? 1 : 0) | (w & 65280 ? 2 : 0) | (w & 16711680 ? 4 : 0) | (w & 4278190080 ? 8 : 0);
			bits[(row + x) * 2 + (z >> 1 & 1)] |= four << (z & 1) * 16 + (y & 3) * 4;
		}
	}
	return bits;
}
/** Fills in one octant of {@link RayGrid.reach}, from its far end: an empty cube is one larger than the least beyond it. */
function measureReach(bits, [bx, by, bz], octant, reach) {
	const sx = octant & 1 ? -1 : 1, sy = octant & 2 ? -1 : 1, sz = octant & 4 ? -1 : 1;
	const at = (x, y, z) => x < 0 || y < 0 || z < 0 || x >= bx || y >= by || z >= bz ? 255 : reach[(z * by + y) * bx + x];
	for (let k = 0; k < bz; k++) {
		const z = sz > 0 ? bz - 1 - k : k;
		for (let j = 0; j < by; j++) {
			const y = sy > 0 ? by - 1 - j : j;
			for (let i = 0; i < bx; i++) {
				const x = sx > 0 ? bx - 1 - i : i;
				const n = (z * by + y) * bx + x;
				if (bits[n * 2] !== 0 || bits[n * 2 + 1] !== 0) continue;
				const m = Math.min(at(x + sx, y, z), at(x, y + sy, z), at(x, y, z + sz), at(x + sx, y + sy, z), at(x + sx, y, z + sz), at(x, y + sy, z + sz), at(x + sx, y + sy, z + sz));
				reach[n] = Math.min(254, m) + 1;
			}
		}
	}
}
/** What {@link intersectGrid} met; one serves for millions of rays, since nothing may be allocated for each. */
var GridHit = class {
	/** Palette byte. */
	value = 0;
	/** Axis of the face and the sign of its outward normal. */
	axis = 0;
	sign = 1;
};
/**
* The distance (in lengths of the direction) at which a ray first meets a filled cell, or Infinity.
* The origin is in lattice coordinates; the direction need not have length 1. A ray that begins inside a
* filled cell meets it at `tMin`. What was met goes to `hit`.
*
* One long function on purpose: cut into pieces that share their state, it takes twice as long.
*/
function intersectGrid(g, ox, oy, oz, dx, dy, dz, tMin, tMax, hit) {
	ox -= g.min[0];
	oy -= g.min[1];
	oz -= g.min[2];
	const nx = g.size[0], ny = g.size[1], nz = g.size[2];
	const ix = 1 / dx, iy = 1 / dy, iz = 1 / dz;
	let enter = tMin, axis = -1;
	let leave = tMax;
	if (dx !== 0) {
		const a = (dx > 0 ? -ox : nx - ox) * ix, b = (dx > 0 ? nx - ox : -ox) * ix;
		if (a > enter) {
			enter = a;
			axis = 0;
		}
		if (b < leave) leave = b;
	} else if (ox < 0 || ox >= nx) return Infinity;
	if (dy !== 0) {
		const a = (dy > 0 ? -oy : ny - oy) * iy, b = (dy > 0 ? ny - oy : -oy) * iy;
		if (a > enter) {
			enter = a;
			axis = 1;
		}
		if (b < leave) leave = b;
	} else if (oy < 0 || oy >= ny) return Infinity;
	if (dz !== 0) {
		const a = (dz > 0 ? -oz : nz - oz) * iz, b = (dz > 0 ? nz - oz : -oz) * iz;
		if (a > enter) {
			enter = a;
			axis = 2;
		}
		if (b < leave) leave = b;
	} else if (oz < 0 || oz >= nz) return Infinity;
	if (enter >= leave) return Infinity;
	const bits = g.bits, reach = g.reach;
	const bx = g.blocks[0], by = g.blocks[1], bz = g.blocks[2];
	const px = dx > 0, py = dy > 0, pz = dz > 0;
	const base = ((px ? 0 : 1) | (py ? 0 : 2) | (pz ? 0 : 4)) * bx * by * bz;
	const sx = px ? 1 : -1, sy = py ? 1 : -1, sz = pz ? 1 : -1;
	let t = enter;
	let x = Math.floor(ox + dx * t), y = Math.floor(oy + dy * t), z = Math.floor(oz + dz * t);
	if (x < 0) x = 0;
	else if (x >= nx) x = nx - 1;
	if (y < 0) y = 0;
	else if (y >= ny) y = ny - 1;
	if (z < 0) z = 0;
	else if (z >= nz) z = nz - 1;
	for (;;) {
		const block = ((z >> 2) * by + (y >> 2)) * bx + (x >> 2);
		const step = reach[base + block];
		if (step === 0) {
			const blockX = x >> 2, blockY = y >> 2, blockZ = z >> 2;
			let tx = dx !== 0 ? ((px ? x + 1 : x) - ox) * ix : Infinity;
			let ty = dy !== 0 ? ((py ? y + 1 : y) - oy) * iy : Infinity;
			let tz = dz !== 0 ? ((pz ? z + 1 : z) - oz) * iz : Infinity;
			const ddx = Math.abs(ix), ddy = Math.abs(iy), ddz = Math.abs(iz);
			for (;;) {
				if (bits[block * 2 + (z >> 1 & 1)] >>> (z & 1) * 16 + (y & 3) * 4 + (x & 3) & 1) {
					if (t >= leave) return Infinity;
					hit.value = g.cells[(z * ny + y) * nx + x];
					hit.axis = axis < 0 ? 1 : axis;
					hit.sign = axis < 0 ? 1 : axis === 0 ? -sx : axis === 1 ? -sy : -sz;
					return t;
				}
				if (tx < ty && tx < tz) {
					t = tx;
					x += sx;
					tx += ddx;
					axis = 0;
				} else if (ty < tz) {
					t = ty;
					y += sy;
					ty += ddy;
					axis = 1;
				} else {
					t = tz;
					z += sz;
					tz += ddz;
					axis = 2;
				}
				if (x >> 2 !== blockX || y >> 2 !== blockY || z >> 2 !== blockZ) {
					if (t >= leave || x < 0 || y < 0 || z < 0 || x >= nx || y >= ny || z >= nz) return Infinity;
					break;
				}
			}
		} else {
			const ex = px ? (x >> 2) + step << 2 : (x >> 2) + 1 - step << 2;
			const ey = py ? (y >> 2) + step << 2 : (y >> 2) + 1 - step << 2;
			const ez = pz ? (z >> 2) + step << 2 : (z >> 2) + 1 - step << 2;
			const tx = dx !== 0 ? (ex - ox) * ix : Infinity;
			const ty = dy !== 0 ? (ey - oy) * iy : Infinity;
			const tz = dz !== 0 ? (ez - oz) * iz : Infinity;
			let cx = x, cy = y, cz = z;
			if (tx < ty && tx < tz) {
				t = tx;
				axis = 0;
				cx = px ? ex : ex - 1;
				cy = Math.floor(oy + dy * t);
				cz = Math.floor(oz + dz * t);
			} else if (ty < tz) {
				t = ty;
				axis = 1;
				cy = py ? ey : ey - 1;
				cx = Math.floor(ox + dx * t);
				cz = Math.floor(oz + dz * t);
			} else {
				t = tz;
				axis = 2;
				cz = pz ? ez : ez - 1;
				cx = Math.floor(ox + dx * t);
				cy = Math.floor(oy + dy * t);
			}
			if (t >= leave) return Infinity;
			if (axis !== 0) x = px ? cx < x ? x : cx >= ex ? ex - 1 : cx : cx > x ? x : cx < ex ? ex : cx;
			else x = cx;
			if (axis !== 1) y = py ? cy < y ? y : cy >= ey ? ey - 1 : cy : cy > y ? y : cy < ey ? ey : cy;
			else y = cy;
			if (axis !== 2) z = pz ? cz < z ? z : cz >= ez ? ez - 1 : cz : cz > z ? z : cz < ez ? ez : cz;
			else z = cz;
			if (x < 0 || y < 0 || z < 0 || x >= nx || y >= ny || z >= nz) return Infinity;
		}
	}
}
/** Nodes that may wait at once: three a level and one, and the tree is cut in the middle at the worst. */
const MAX_DEPTH = 512;
/** The instance of a ray that meets none, and of one that met something which was not looked up yet. */
const NOTHING = -2;
const MET = -3;
/** What a ray meets in a scene; one serves for millions of rays, and holds what the last one met. */
var SceneRay = class {
	/** Distance along the (unit) direction. */
	t = Infinity;
	/** Which instance; −1 for the floor. */
	instance = -1;
	/** Palette byte. */
	value = 0;
	/** Outward normal of the face, of length 1. */
	nx = .5;
	ny = .5;
	nz = .5;
	hit = new GridHit();
	leaf = 0;
	axis = 0;
	sign = 1;
	/** Whether anything that is met will do. */
	any = false;
	/** Nodes still to be looked at, and how far away their boxes begin. */
	stack = new Int32Array(MAX_DEPTH);
	nears = new Float64Array(MAX_DEPTH);
	/**
	* The nearest thing along a ray. Each ray is carried into every grid's own space with its direction not normalised, so
	* that distances compare. Returns whether anything was met.
	*/
	intersect(scene, ox, oy, oz, dx, dy, dz, tMin, tMax) {
		this.t = tMax;
		this.instance = NOTHING;
		if (scene.instances.length > 0) {
			this.walkTree(scene, ox, oy, oz, dx, dy, dz, tMin);
			if (this.instance === MET && !this.any) this.settle(scene);
		}
		const floor = scene.light.groundY;
		if (floor !== null && dy < 0) {
			const t = (floor - oy) / dy;
			if (t > tMin && t < this.t) this.takeFloor(t);
		}
		return this.instance !== NOTHING;
	}
	/** Whether anything stands in the way of a ray, whatever it is: quicker than what is nearest. */
	blocked(scene, ox, oy, oz, dx, dy, dz, tMin, tMax) {
		this.any = true;
		const met = this.intersect(scene, ox, oy, oz, dx, dy, dz, tMin, tMax);
		this.any = false;
		return met;
	}
	/**
	* Down the tree, the nearest box first; what lies behind what was met is passed by. Boxes are met by slabs (Kay & Kajiya
	* 1986), whose near sides follow from the signs of the direction. One loop, since pieces that share its state cost twice the
	* time.
	*/
	walkTree(scene, ox, oy, oz, dx, dy, dz, tMin) {
		const { boxes, links } = scene.tree;
		const { stack, nears } = this;
		const sorted = !this.any;
		const ix = 1 / dx, iy = 1 / dy, iz = 1 / dz;
		const nearX = ix < 0 ? 12 : 0, nearY = iy < 0 ? 16 : 4, nearZ = iz < 0 ? 20 : 8;
		const farX = 12 - nearX, farY = 20 - nearY, farZ = 28 - nearZ;
		let top = 0;
		stack[0] = 0;
		nears[0] = 0;
		while (top >= 0) {
			const link = stack[top];
			if (nears[top--] > this.t) continue;
			if (link < 0) {
				this.meet(scene, -1 - link, ox, oy, oz, dx, dy, dz, tMin);
				if (this.any && this.instance !== NOTHING) return;
				continue;
			}
			const first = top + 1, t = this.t;
			for (let k = 0; k < 4; k++) {
				const b = link * 24 + k;
				let near = (boxes[b + nearX] - ox) * ix, far = (boxes[b + farX] - ox) * ix;
				if (far < 0 || near > t) continue;
				const nz = (boxes[b + nearZ] - oz) * iz, fz = (boxes[b + farZ] - oz) * iz;
				if (fz < 0 || nz > far || near > fz || nz > t) continue;
				if (nz > near) near = nz;
				if (fz < far) far = fz;
				const ny = (boxes[b + nearY] - oy) * iy, fy = (boxes[b + farY] - oy) * iy;
				if (fy < near || ny > far || fy < 0 || ny > t) continue;
				if (ny > near) near = ny;
				let at = ++top;
				while (sorted && at > first && nears[at - 1] < near) {
					stack[at] = stack[at - 1];
					nears[at] = nears[at - 1];
					at--;
				}
				stack[at] = links[link * 4 + k];
				nears[at] = near;
			}
		}
	}
	meet(scene, leaf, ox, oy, oz, dx, dy, dz, tMin) {
		const m = scene.tree.toLocal, o = leaf * 12;
		const m0 = m[o], m1 = m[o + 1], m2 = m[o + 2], m3 = m[o + 3], m4 = m[o + 4], m5 = m[o + 5], m6 = m[o + 6], m7 = m[o + 7], m8 = m[o + 8];
		const lx = m0 * ox + m3 * oy + m6 * oz + m[o + 9];
		const ly = m1 * ox + m4 * oy + m7 * oz + m[o + 10];
		const lz = m2 * ox + m5 * oy + m8 * oz + m[o + 11];
		const ex = m0 * dx + m3 * dy + m6 * dz;
		const ey = m1 * dx + m4 * dy + m7 * dz;
		const ez = m2 * dx + m5 * dy + m8 * dz;
		const t = intersectGrid(scene.tree.grids[leaf], lx, ly, lz, ex, ey, ez, tMin, this.t, this.hit);
		if (t >= this.t) return;
		this.t = t;
		this.leaf = leaf;
		this.instance = MET;
		this.value = this.hit.value;
		this.axis = this.hit.axis;
		this.sign = this.hit.sign;
	}
	/** What was met in the end: looked up once a ray, since it lies far away in memory. */
	settle({ tree, instances }) {
		this.instance = tree.order[this.leaf];
		const { axes } = instances[this.instance], a = this.axis * 3;
		this.nx = axes[a] * this.sign;
		this.ny = axes[a + 1] * this.sign;
		this.nz = axes[a + 2] * this.sign;
	}
	takeFloor(t) {
		this.t = t;
		this.instance = -1;
		this.value = 0;
		this.nx = 0;
		this.ny = 1;
		this.nz = 0;
	}
};
/**
* The chances of one sample of one pixel: they follow from both numbers alone, so that a picture is the same however its
* pixels and samples are shared. Xorshift (Marsaglia 2003), begun by hashing.
*/
var Sampler = class {
	state = 1;
	begin(pixel, sample) {
		this.state = hash32(hash32(pixel + 1663821227) ^ Math.imul(sample + 1, 2654435761)) || 1;
	}
	/** 0 to below 1. */
	next() {
		let s = this.state;
		s ^= s << 13;
		s ^= s >>> 17;
		s ^= s << 5;
		this.state = s;
		return (s >>> 0) / 4294967296;
	}
};
const TRACE_DEFAULTS = {
	bounces: 6,
	clamp: 6
};
const EPSILON = 1e-4;
/** Pixels are traced in squares so wide: paths of neighbours meet the same things, which are at hand then. */
const BLOCK = 8;
/**
* Unidirectional path tracing (Kajiya 1986): at every diffuse surface the sun and one glowing face are aimed
* for (next-event estimation); sky and other surfaces are found by cosine-weighted bounces. Each sample's randomness follows from pixel and
* sample number alone, so that a picture is the same however it is shared among workers.
*
* Surfaces: diffuse; metal by mirror reflection roughened towards diffuse; glass lets a share of 1 − opacity through, tinted;
* emissive swatches give off their colour times their strength.
*
* @param first – number of the first sample, so that later passes add new ones
*/
function traceArea(scene, area, first, samples, options = TRACE_DEFAULTS) {
	const out = makeTraced(area, samples);
	const path = new Path(scene, options);
	const { width, height } = area;
	for (let y = 0; y < height; y += BLOCK) for (let x = 0; x < width; x += BLOCK) for (let j = y; j < Math.min(height, y + BLOCK); j++) for (let i = x; i < Math.min(width, x + BLOCK); i++) for (let s = first; s < first + samples; s++) {
		path.follow(area.x + i, area.y + j, s);
		path.addTo(out, j * width + i);
	}
	return out;
}
const fadeAt = (t, [near, far]) => Math.min(1, (t - near) / (far - near));
/** One path of light, followed from the eye; used again for each sample, since nothing may be allocated for so many. */
var Path = class {
	scene;
	options;
	/** What came of the last sample: linear light, and 1 when it met anything. */
	r = .5;
	g = .5;
	b = .5;
	covered = 0;
	/** The first surface: its colour, normal and distance; zeros when there was none. */
	cr = .5;
	cg = .5;
	cb = .5;
	mx = .5;
	my = .5;
	mz = .5;
	away = .5;
	/** The ray. */
	ox = .5;
	oy = .5;
	oz = .5;
	dx = .5;
	dy = .5;
	dz = .5;
	/** The share of red, green and blue that comes back along the path. */
	wr = .5;
	wg = .5;
	wb = .5;
	/** A direction that {@link scatter} or {@link aim} made. */
	ax = .5;
	ay = .5;
	az = .5;
	/** Glow met after a diffuse bounce was counted already, when it was aimed for. */
	countGlow = true;
	/** Most light that may come over the bounce under way. */
	limit = Infinity;
	chance = new Sampler();
	met = new SceneRay();
	/** For rays to lights, so that what the path itself met stays. */
	shadow = new SceneRay();
	constructor(scene, options) {
		this.scene = scene;
		this.options = options;
	}
	/** Follows sample `sample` of the pixel in column `x` of row `y`. */
	follow(x, y, sample) {
		this.chance.begin(y * this.scene.width + x, sample);
		this.leaveEye(x, y);
		this.r = this.g = this.b = 0;
		this.wr = this.wg = this.wb = 1;
		this.covered = 0;
		this.cr = this.cg = this.cb = this.mx = this.my = this.mz = this.away = 0;
		this.countGlow = true;
		for (let bounce = 0; this.step(bounce); bounce++);
	}
	/** Adds what came of the last sample to pixel `p` of an area. */
	addTo({ light, cover, albedo, normal, depth }, p) {
		const o = p * 3;
		light[o] += this.r;
		light[o + 1] += this.g;
		light[o + 2] += this.b;
		cover[p] += this.covered;
		albedo[o] += this.cr;
		albedo[o + 1] += this.cg;
		albedo[o + 2] += this.cb;
		normal[o] += this.mx;
		normal[o + 1] += this.my;
		normal[o + 2] += this.mz;
		depth[p] += this.away;
	}
	/** Remembers the first surface that the eye meets. */
	see(colour, c) {
		const { met } = this;
		this.cr = colour[c];
		this.cg = colour[c + 1];
		this.cb = colour[c + 2];
		this.mx = met.nx;
		this.my = met.ny;
		this.mz = met.nz;
		this.away = met.t;
	}
	leaveEye(x, y) {
		const { width, height, camera: c } = this.scene;
		const u = (x + this.chance.next()) / width * 2 - 1;
		const v = 1 - (y + this.chance.next()) / height * 2;
		const px = c.right[0] * u + c.up[0] * v, py = c.right[1] * u + c.up[1] * v, pz = c.right[2] * u + c.up[2] * v;
		if (c.perspective) {
			this.start(c.eye[0], c.eye[1], c.eye[2]);
			this.turn(c.ahead[0] + px, c.ahead[1] + py, c.ahead[2] + pz);
		} else {
			this.start(c.eye[0] + px, c.eye[1] + py, c.eye[2] + pz);
			this.turn(c.ahead[0], c.ahead[1], c.ahead[2]);
		}
	}
	start(x, y, z) {
		this.ox = x;
		this.oy = y;
		this.oz = z;
	}
	/** The ray into another direction, of any length. */
	turn(x, y, z) {
		const l = 1 / Math.hypot(x, y, z);
		this.dx = x * l;
		this.dy = y * l;
		this.dz = z * l;
	}
	/** From one surface to the next; gives whether the path goes on. */
	step(bounce) {
		this.limit = bounce === 0 ? Infinity : this.options.clamp;
		const { scene, met } = this;
		const found = met.intersect(scene, this.ox, this.oy, this.oz, this.dx, this.dy, this.dz, EPSILON, Infinity);
		if (found && met.instance < 0 && this.meltsAway(met.t)) return false;
		if (!found) {
			this.takeSky();
			return false;
		}
		this.covered = 1;
		if (met.instance < 0) {
			if (bounce === 0) this.see(scene.light.groundColour, 0);
			return bounce < this.options.bounces && this.bounceOff(scene.light.groundColour, 0, bounce, 0, 1);
		}
		const s = scene.instances[met.instance].shape.surfaces;
		const v = met.value, c = v * 3;
		if (bounce === 0) this.see(s.colour, c);
		const e = s.emissive[v];
		if (e > 0 && this.countGlow) this.add(s.colour[c] * e, s.colour[c + 1] * e, s.colour[c + 2] * e);
		const opacity = s.opacity[v];
		if (opacity < 1 && this.chance.next() >= opacity) {
			this.passThrough(s.colour, c);
			return bounce < this.options.bounces * 2;
		}
		return bounce < this.options.bounces && this.bounceOff(s.colour, c, bounce, s.metalness[v], s.roughness[v]);
	}
	/** Light that comes along the path, held to the limit. */
	add(r, g, b) {
		this.r += Math.min(this.limit, this.wr * r);
		this.g += Math.min(this.limit, this.wg * g);
		this.b += Math.min(this.limit, this.wb * b);
	}
	weigh(r, g, b) {
		this.wr *= r;
		this.wg *= g;
		this.wb *= b;
	}
	/** Far floor melts into the horizon: that share of the light is taken here, the rest goes on; true when all has. */
	meltsAway(t) {
		const { groundFade, horizon } = this.scene.light;
		const melted = t > groundFade[0] ? fadeAt(t, groundFade) : 0;
		if (melted === 0) return false;
		this.covered = 1;
		this.r += this.wr * melted * horizon[0];
		this.g += this.wg * melted * horizon[1];
		this.b += this.wb * melted * horizon[2];
		this.weigh(1 - melted, 1 - melted, 1 - melted);
		return melted === 1;
	}
	takeSky() {
		const { horizon: h, zenith: z } = this.scene.light;
		const k = this.dy <= 0 ? 0 : Math.sqrt(this.dy);
		this.r += this.wr * (h[0] + (z[0] - h[0]) * k);
		this.g += this.wg * (h[1] + (z[1] - h[1]) * k);
		this.b += this.wb * (h[2] + (z[2] - h[2]) * k);
	}
	/** Straight through this cube, taking on a little of its colour at each face passed. */
	passThrough(colour, c) {
		const { dx, dy, dz, met } = this;
		this.weigh(.5 + .5 * colour[c], .5 + .5 * colour[c + 1], .5 + .5 * colour[c + 2]);
		const m = this.scene.instances[met.instance].toLocal;
		const x = Math.abs(m[0] * dx + m[4] * dy + m[8] * dz), y = Math.abs(m[1] * dx + m[5] * dy + m[9] * dz), z = Math.abs(m[2] * dx + m[6] * dy + m[10] * dz);
		const way = met.t + 1 / Math.max(x, y, z);
		this.ox += dx * way;
		this.oy += dy * way;
		this.oz += dz * way;
	}
	/** Off an opaque surface, by mirror or diffusely; gives whether the path goes on. */
	bounceOff(colour, c, bounce, metal, rough) {
		this.weigh(colour[c], colour[c + 1], colour[c + 2]);
		if (bounce >= 3 && !this.survives()) return false;
		const { t, nx, ny, nz } = this.met;
		this.ox += this.dx * t + nx * EPSILON;
		this.oy += this.dy * t + ny * EPSILON;
		this.oz += this.dz * t + nz * EPSILON;
		if (metal > 0 && this.chance.next() < metal) {
			this.countGlow = true;
			this.reflect(rough * rough);
			return true;
		}
		this.gatherSun();
		if (!this.scene.emitters.isEmpty) this.gatherGlow();
		this.countGlow = false;
		this.scatter(nx, ny, nz);
		this.dx = this.ax;
		this.dy = this.ay;
		this.dz = this.az;
		return true;
	}
	/** Paths that carry little are ended by chance, and those that go on count for more (Russian roulette). */
	survives() {
		const keep = Math.min(.95, Math.max(this.wr, this.wg, this.wb));
		if (this.chance.next() >= keep) return false;
		this.wr /= keep;
		this.wg /= keep;
		this.wb /= keep;
		return true;
	}
	/** Mirrors the ray; `fuzz` is how far it is drawn towards a diffuse bounce. */
	reflect(fuzz) {
		const { nx, ny, nz } = this.met;
		const k = 2 * (this.dx * nx + this.dy * ny + this.dz * nz);
		this.dx -= k * nx;
		this.dy -= k * ny;
		this.dz -= k * nz;
		if (fuzz === 0) return;
		this.scatter(nx, ny, nz);
		this.turn(this.dx + (this.ax - this.dx) * fuzz, this.dy + (this.ay - this.dy) * fuzz, this.dz + (this.az - this.dz) * fuzz);
	}
	/** A cosine-weighted direction about a unit normal (Malley's method). */
	scatter(nx, ny, nz) {
		const u = this.chance.next(), phi = 2 * Math.PI * this.chance.next();
		const rad = Math.sqrt(u);
		this.aim(nx, ny, nz, rad * Math.cos(phi), rad * Math.sin(phi), Math.sqrt(1 - u));
	}
	/** A direction given in a frame whose z is the normal (frame after Duff et al. 2017). */
	aim(nx, ny, nz, x, y, z) {
		const sign = nz >= 0 ? 1 : -1;
		const a = -1 / (sign + nz), b = nx * ny * a;
		this.ax = x * (1 + sign * nx * nx * a) + y * b + z * nx;
		this.ay = x * sign * b + y * (sign + ny * ny * a) + z * ny;
		this.az = -x * sign * nx - y * ny + z * nz;
	}
	/**
	* The light of the sun, where it is seen from: by the cosine at the surface. The sun's strength is its irradiance on a
	* surface facing it, divided by π; so a white wall in full sun of strength 1 has radiance 1.
	*/
	gatherSun() {
		const { sunColour: c, sunCos, sunDirection: d } = this.scene.light;
		if (c[0] + c[1] + c[2] === 0) return;
		const z = 1 - this.chance.next() * (1 - sunCos), s = Math.sqrt(Math.max(0, 1 - z * z)), phi = 2 * Math.PI * this.chance.next();
		this.aim(d[0], d[1], d[2], s * Math.cos(phi), s * Math.sin(phi), z);
		const { nx, ny, nz } = this.met;
		const { ax, ay, az } = this;
		const cos = ax * nx + ay * ny + az * nz;
		if (cos <= 0 || ay <= 0) return;
		if (this.shadow.blocked(this.scene, this.ox, this.oy, this.oz, ax, ay, az, EPSILON, Infinity)) return;
		this.add(c[0] * cos, c[1] * cos, c[2] * cos);
	}
	/**
	* The light of a random point of a glowing face that was chosen by its power, where it is seen from: its radiance times
	* both cosines by area over π times the squared distance, over the chance of that choice.
	*/
	gatherGlow() {
		const e = this.scene.emitters;
		const { ox, oy, oz } = this;
		const { nx, ny, nz } = this.met;
		e.choose(this.chance.next(), this.chance.next());
		const { corner, u, v } = e;
		const a = this.chance.next(), b = this.chance.next();
		let dx = corner[0] + u[0] * a + v[0] * b - ox;
		let dy = corner[1] + u[1] * a + v[1] * b - oy;
		let dz = corner[2] + u[2] * a + v[2] * b - oz;
		const d2 = dx * dx + dy * dy + dz * dz;
		const d = Math.sqrt(d2);
		if (d < EPSILON * 2) return;
		dx /= d;
		dy /= d;
		dz /= d;
		const cos = dx * nx + dy * ny + dz * nz;
		if (cos <= 0) return;
		const fx = u[1] * v[2] - u[2] * v[1];
		const fy = u[2] * v[0] - u[0] * v[2];
		const fz = u[0] * v[1] - u[1] * v[0];
		const facing = -(dx * fx + dy * fy + dz * fz);
		if (facing <= 0) return;
		if (this.shadow.blocked(this.scene, ox, oy, oz, dx, dy, dz, EPSILON, d - EPSILON * 4)) return;
		const share = cos * facing / (Math.PI * d2 * e.chance);
		this.add(e.radiance[0] * share, e.radiance[1] * share, e.radiance[2] * share);
	}
};
function traceCamera(camera, width, height) {
	const ahead = normalize(sub(camera.target, camera.eye));
	const side = cross(ahead, Math.abs(ahead[1]) > .9999 ? [
		0,
		0,
		-1
	] : [
		0,
		1,
		0
	]);
	const right = normalize(side);
	const up = cross(right, ahead);
	const half = camera.kind === "perspective" ? Math.tan(camera.fov * Math.PI / 360) : camera.height / 2;
	return {
		perspective: camera.kind === "perspective",
		eye: camera.eye,
		right: scale(right, half * width / height),
		up: scale(up, half),
		ahead
	};
}
const known = /* @__PURE__ */ new WeakMap();
/** A palette as the tracer sees it, the same for the same palette; `glow` multiplies every swatch's emission. */
function surfacesOf(palette, glow) {
	let byGlow = known.get(palette);
	if (!byGlow) known.set(palette, byGlow = /* @__PURE__ */ new Map());
	let surfaces = byGlow.get(glow);
	if (!surfaces) {
		const table = paletteTable(palette);
		const column = (f) => Float32Array.from(table.swatches, f);
		surfaces = {
			colour: table.linear,
			emissive: column((s) => s.emissive * glow),
			roughness: column((s) => s.roughness),
			metalness: column((s) => s.metalness),
			opacity: column((s) => s.opacity)
		};
		byGlow.set(glow, surfaces);
	}
	return surfaces;
}
/** Numbers a glowing face takes in a shape: corner (3), axes of its edges u and v, 1 or −1 for u × v outwards, radiance (3). */
const STRIDE = 9;
/** How much the eye makes of linear light (Rec. 709). */
const brightness = (r, g, b) => .2126 * r + .7152 * g + .0722 * b;
/** The glow of a grid; null when nothing of it glows. */
function shapeGlow(grid, { emissive, colour }) {
	if (!emissive.some((e) => e > 0)) return null;
	const faces = [], upTo = [];
	const along = [
		0,
		0,
		0
	];
	let sum = 0;
	grid.forEach((x, y, z, value) => {
		const e = emissive[value];
		if (e === 0) return;
		const [r, g, b] = [
			0,
			1,
			2
		].map((i) => colour[value * 3 + i] * e);
		for (const [direction, n] of FACE_DIRECTIONS.entries()) {
			if (grid.get(x + n[0], y + n[1], z + n[2]) !== 0) continue;
			const axis = direction >> 1, out = n[axis];
			const corner = [
				x,
				y,
				z
			];
			if (out > 0) corner[axis]++;
			faces.push(...corner, (axis + 1) % 3, (axis + 2) % 3, out, r, g, b);
			const bright = brightness(r, g, b);
			upTo.push(sum += bright);
			along[axis] += bright;
		}
	});
	return sum > 0 ? {
		faces: Float64Array.from(faces),
		upTo: Float64Array.from(upTo),
		along
	} : null;
}
/**
* The glowing faces of a whole scene, chosen by their power: brightness times area. A few strong lamps among thousands of weak
* ones are found at once, and a thousand copies of a lamp hold its faces once.
*/
var EmitterTable = class {
	/** Instances that glow, and the running sums of their power. */
	instances;
	upTo;
	total;
	/** Of what {@link choose} found last: a corner, edges whose product points outwards, radiance, and how likely it was. */
	corner = /* @__PURE__ */ new Float64Array(3);
	u = /* @__PURE__ */ new Float64Array(3);
	v = /* @__PURE__ */ new Float64Array(3);
	radiance = /* @__PURE__ */ new Float64Array(3);
	chance = 1;
	constructor(all) {
		this.instances = all.filter((i) => i.shape.glow);
		let sum = 0;
		this.upTo = Float64Array.from(this.instances, (i) => sum += powerOf(i));
		this.total = sum;
	}
	get isEmpty() {
		return this.total === 0;
	}
	/** Chooses a face by two chances of 0 to below 1. */
	choose(a, b) {
		const k = firstAbove(this.upTo, a * this.total);
		const { shape, toWorld: m } = this.instances[k];
		const { faces, upTo } = shape.glow;
		const whole = upTo[upTo.length - 1];
		const f = firstAbove(upTo, b * whole);
		const o = f * STRIDE;
		const x = faces[o], y = faces[o + 1], z = faces[o + 2];
		const out = faces[o + 5];
		const eu = faces[o + (out > 0 ? 3 : 4)] * 4, ev = faces[o + (out > 0 ? 4 : 3)] * 4;
		for (let i = 0; i < 3; i++) {
			this.corner[i] = m[i] * x + m[4 + i] * y + m[8 + i] * z + m[12 + i];
			this.u[i] = m[eu + i];
			this.v[i] = m[ev + i];
			this.radiance[i] = faces[o + 6 + i];
		}
		this.chance = widthAt(this.upTo, k) / this.total * (widthAt(upTo, f) / whole);
	}
};
/** Light that an instance gives off: brightness along each axis times the area of a face across it. */
function powerOf({ shape, toWorld: m }) {
	const edges = [
		0,
		4,
		8
	].map((o) => vec3Of(m.subarray(o, o + 3)));
	return shape.glow.along.reduce((sum, bright, axis) => sum + bright * length(cross(edges[(axis + 1) % 3], edges[(axis + 2) % 3])), 0);
}
const widthAt = (upTo, i) => upTo[i] - (i > 0 ? upTo[i - 1] : 0);
/** The first whose running sum is above `value`, by halving. */
function firstAbove(upTo, value) {
	let lo = 0, hi = upTo.length - 1;
	while (lo < hi) {
		const mid = lo + hi >> 1;
		if (upTo[mid] > value) hi = mid;
		else lo = mid + 1;
	}
	return lo;
}
const rayGrids = /* @__PURE__ */ new WeakMap();
const shapes = /* @__PURE__ */ new WeakMap();
/** The shape of a grid in some colours, the same each time; null when it is empty. */
function traceShape(grid, surfaces) {
	let ray = rayGrids.get(grid);
	if (ray === void 0) rayGrids.set(grid, ray = rayGridOf(grid));
	if (!ray) return null;
	let byColour = shapes.get(grid);
	if (!byColour) shapes.set(grid, byColour = /* @__PURE__ */ new Map());
	let shape = byColour.get(surfaces);
	if (!shape) byColour.set(surfaces, shape = {
		grid: ray,
		surfaces,
		glow: shapeGlow(grid, surfaces)
	});
	return shape;
}
/** A grid as an instance; null when it is empty. `matrix` takes lattice points to the world. */
function traceInstance(grid, surfaces, matrix) {
	const shape = traceShape(grid, surfaces);
	if (!shape) return null;
	const axes = /* @__PURE__ */ new Float64Array(9);
	for (let a = 0; a < 3; a++) axes.set(normalize([
		matrix[a * 4],
		matrix[a * 4 + 1],
		matrix[a * 4 + 2]
	]), a * 3);
	return {
		shape,
		toWorld: Float64Array.from(matrix),
		toLocal: Float64Array.from(invertMat(matrix)),
		axes,
		...placedExtent(matrix, grid.contentBox())
	};
}
function traceLight(light, groundY, fade = [Infinity, Infinity]) {
	const az = light.sun.azimuth * Math.PI / 180, el = light.sun.elevation * Math.PI / 180;
	const times = (c, k) => [
		c[0] * k,
		c[1] * k,
		c[2] * k
	];
	return {
		sunDirection: [
			Math.sin(az) * Math.cos(el),
			Math.sin(el),
			Math.cos(az) * Math.cos(el)
		],
		sunColour: times(hexToLinear(light.sun.colour), light.sun.strength),
		sunCos: Math.cos(light.sun.size * Math.PI / 360),
		zenith: times(hexToLinear(light.sky.zenith), light.sky.strength),
		horizon: times(hexToLinear(light.sky.horizon), light.sky.strength),
		groundY: light.ground.kind === "none" ? null : groundY,
		groundColour: hexToLinear(light.ground.colour),
		groundFade: fade
	};
}
/** Instances with what is derived from them. */
const traceBodies = (instances) => ({
	instances,
	tree: instanceTree(instances),
	emitters: new EmitterTable(instances)
});
export { addTraced, makeFilm, surfacesOf, tileAreas, traceArea, traceBodies, traceCamera, traceInstance, traceLight };
