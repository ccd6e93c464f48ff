# frozen_string_literal: true

# Draws the demo's emotes, badges and avatars anew, into demo/pictures/. Everything it writes is committed.
#   bundle exec ruby demo/draw.rb

require "fileutils"
require "vips"

FOLDER = File.expand_path("pictures", __dir__)
FRAMES = 24
DELAY_MS = 60
MARIGOLD, LAGOON, FERN, ROSE, LILAC, CORAL, MOSS, SAND, INK, SNOW =
  %w[#f3b634 #5fb8d6 #63c58a #e58fb0 #b79cf0 #ea8a6a #a8c46a #d9c8a0 #1b2a33 #fbf6ea].freeze

def svg(inner, size: 64)
  %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 #{size} #{size}">#{inner}</svg>)
end

def circle(x, y, radius, fill) = %(<circle cx="#{x.round(2)}" cy="#{y.round(2)}" r="#{radius}" fill="#{fill}"/>)
def path(way, fill, more = "") = %(<path d="#{way}" fill="#{fill}" #{more}/>)

def stroke(way, colour, width)
  %(<path d="#{way}" fill="none" stroke="#{colour}" stroke-width="#{width}" stroke-linecap="round" stroke-linejoin="round"/>)
end

def turned(inner, degrees, x = 32, y = 32) = %(<g transform="rotate(#{degrees.round(2)} #{x} #{y})">#{inner}</g>)
def moved(inner, x, y) = %(<g transform="translate(#{x.round(2)} #{y.round(2)})">#{inner}</g>)

# A small round bird, looking right.
def songbird(body, wing, beak, tail: 0)
  turned(path("M22 42 6 50 10 36z", body), tail, 22, 42) + circle(33, 36, 19, body) + circle(43, 25, 12, body) + path("M54 23 63 27 54 30z", beak) +
    path("M20 38c8-8 20-4 22 4-8 8-18 6-22-4z", wing) + circle(46, 23, 2.6, INK) + stroke("M28 54v7M38 54v7", beak, 2.6)
end

# On long legs, with a long neck.
def wader(body, neck, beak, bend: 0)
  stroke("M28 44v18M36 44v18", beak, 2.6) + path("M10 34c8-12 28-12 34 2-6 12-28 14-34-2z", body) +
    turned(stroke("M40 34C48 28 42 20 44 12", neck, 7) + circle(45, 12, 6.5, neck) + path("M50 10 63 14 50 15z", beak) + circle(47, 11, 1.8, INK),
      bend, 40, 36)
end

def duck(body, head, beak, bob: 0)
  moved(path("M6 40c0 14 44 16 52-4-8 2-14-2-18-4-10 4-24 2-34 8z", body) + circle(44, 24, 12, head) + path("M54 24c6-2 9 0 9 2s-5 4-10 3z", beak) +
    circle(46, 21, 2.4, INK) + path("M18 42c8-4 18-2 20 2-6 4-16 4-20-2z", SNOW, 'opacity="0.55"'), 0, bob)
end

def owl(body, face, lid: 0)
  path("M14 14 24 20h16l10-6v22c0 14-8 24-18 24S14 50 14 36z", body) + circle(24, 28, 9, face) + circle(40, 28, 9, face) +
    circle(24, 28, 4.4, INK) + circle(40, 28, 4.4, INK) + (lid.positive? ? path("M15 19h18v#{lid}H15zM31 19h18v#{lid}H31z", body) : "") +
    path("M32 32 36 38h-8z", MARIGOLD) + stroke("M22 46q4 4 8 0M34 46q4 4 8 0", face, 2.4)
end

def nestbox(wall, roof, look: 14)
  path("M12 28h40v34H12z", wall) + path("M4 30 32 6l28 24-5 5L32 15 9 35z", roof) + circle(32, 44, 9, INK) +
    (look < 14 ? circle(32, 44 + look, 6, MARIGOLD) + circle(34, 42 + look, 1.6, INK) : "") + stroke("M32 57h8", roof, 3)
end

def egg(shell, spots, open: 0)
  top = path("M32 4C18 4 10 24 10 36l7-5 7 6 8-6 8 6 7-6 7 5C54 24 46 4 32 4z", shell) + circle(25, 20, 3, spots) + circle(40, 24, 4, spots)
  bottom = path("M10 36l7-5 7 6 8-6 8 6 7-6 7 5c0 16-10 26-22 26S10 52 10 36z", shell) + circle(26, 50, 4, spots) + circle(42, 46, 3, spots)
  chick = if open.positive?
    moved(circle(32, 34, 13, MARIGOLD) + circle(28, 31, 2, INK) + circle(37, 31, 2, INK) + path("M32 34 36 38h-8z", CORAL), 0,
      -open * 0.35)
  else
    ""
  end
  chick + bottom + moved(turned(top, open * 0.7, 12, 36), 0, -open)
end

def feather(vane, quill)
  path("M52 6C30 8 12 26 12 50l6 2C42 50 54 30 52 6z", vane) + stroke("M8 60 46 14", quill, 2.6)
end

def reed(stalk, head, sway)
  turned(stroke("M32 62C32 44 32 30 32 16", stalk, 3.4) + %(<rect x="27" y="8" width="10" height="22" rx="5" fill="#{head}"/>), sway, 32, 62) +
    turned(stroke("M18 62C18 48 18 40 16 26", stalk, 3) + %(<rect x="11" y="16" width="8" height="18" rx="4" fill="#{head}"/>), sway * 0.8, 18, 62) +
    turned(stroke("M46 62C46 50 46 42 50 30", stalk, 3) + %(<rect x="47" y="18" width="8" height="18" rx="4" fill="#{head}"/>), sway * 1.2, 46, 62)
end

def goose(body, legs, step)
  moved(stroke("M28 46 #{24 + step} 60M36 46 #{40 - step} 60", legs, 4) + path("M6 40c8-14 34-14 38 0-6 12-30 14-38 0z", body) + stroke("M40 38C48 32 42 20 46 14", body, 8) +
    circle(47, 13, 7, body) + path("M53 11 63 15 53 17z", legs) + circle(49, 11, 1.8, INK), 0, -step.abs * 0.5)
end

def otter(fur, belly)
  circle(32, 32, 24, fur) + circle(14, 14, 6, fur) + circle(50, 14, 6, fur) + %(<ellipse cx="32" cy="40" rx="15" ry="11" fill="#{belly}"/>) +
    circle(23, 27, 3,
      INK) + circle(41, 27, 3, INK) + %(<ellipse cx="32" cy="35" rx="4.5" ry="3.2" fill="#{INK}"/>) + stroke("M32 38v4M26 44q6 5 12 0", INK, 2.2)
end

def ring(metal, number)
  stroke("M32 32m-20 0a20 20 0 1 0 40 0a20 20 0 1 0-40 0", metal,
    11) + %(<text x="32" y="57" font-family="sans-serif" font-size="8" font-weight="700" text-anchor="middle" fill="#{INK}">#{number}</text>)
end

def sun(disc, rays, turn)
  turned((0...8).map { |ray| turned(path("M30 2h4v11h-4z", rays), ray * 45) }.join, turn) + circle(32, 32, 15, disc)
end

def heart(fill) = path("M32 58C8 40 4 26 10 16s18-8 22 2c4-10 16-12 22-2s2 24-22 42z", fill)

def drop(fill)
  path("M32 4c12 16 20 26 20 36a20 20 0 0 1-40 0C12 30 20 20 32 4z",
    fill) + path("M22 42c0 7 4 10 9 11", "none", %(stroke="#{SNOW}" stroke-width="4" stroke-linecap="round"))
end

def cloud(fill)
  circle(22, 38, 14,
    fill) + circle(38, 30, 17, fill) + circle(48, 42, 11, fill) + %(<rect x="16" y="40" width="38" height="13" rx="6" fill="#{fill}"/>)
end

def mug(fill, steam, lift)
  path("M10 26h36v26a8 8 0 0 1-8 8H18a8 8 0 0 1-8-8z",
    fill) + stroke("M46 32c14-2 14 18 0 16", fill, 5) + moved(stroke("M20 18q-4-6 0-12M30 18q-4-6 0-12M40 18q-4-6 0-12", steam, 3), 0, lift)
end

def wave(fill) = stroke("M4 24q9-12 18 0t18 0 20 0M4 40q9-12 18 0t18 0 20 0M4 56q9-12 18 0t18 0 20 0", fill, 5)

def sparkles(fill, size)
  moved(turned(path("M0-#{size}Q2-2 #{size} 0 2 2 0 #{size}-2 2-#{size} 0-2-2 0-#{size}z", fill), 0, 0, 0), 18,
    20) + moved(path("M0-#{size * 0.7}Q1-1 #{size * 0.7} 0 1 1 0 #{size * 0.7}-1 1-#{size * 0.7} 0-1-1 0-#{size * 0.7}z", fill), 46, 44)
end

STILLS = {
  "wren" => songbird(MARIGOLD, FERN, CORAL), "robin" => songbird("#8a7f6a", CORAL, INK), "bluetit" => songbird(LAGOON, MARIGOLD, INK),
  "finch" => songbird(FERN, SAND, CORAL), "warbler" => songbird(MOSS, SNOW, CORAL), "starling" => songbird("#3d4a63", LILAC, MARIGOLD),
  "swallow" => songbird("#34609a", CORAL, INK), "heron" => wader("#8fa6b5", SNOW, MARIGOLD), "egret" => wader(SNOW, SNOW, INK),
  "avocet" => wader(SNOW, INK, LAGOON), "snipe" => wader("#a9854f", SAND, "#6d5330"), "crane" => wader("#9aa4ad", CORAL, INK),
  "teal" => duck("#8a8f7a", FERN, INK), "mallard" => duck(SAND, "#2f7d5b", MARIGOLD), "pochard" => duck("#c9ccd0", "#9c4a35", "#55606b"),
  "puffin" => owl("#20303b", SNOW) + path("M32 30 46 38 32 44z", CORAL), "nestbox" => nestbox("#9ed8ea", CORAL), "birdhouse" => nestbox(SAND, FERN),
  "feather" => feather(LAGOON, SNOW), "plume" => feather(ROSE, SNOW), "otter" => otter("#8b6b4a", SNOW), "vole" => otter("#a58a6a", SAND),
  "ring" => ring("#b9c3cb", "K41"), "heart" => heart(ROSE), "drop" => drop(LAGOON), "mist" => cloud("#c9d6dd"), "wave" => wave(LAGOON),
  "moss" => circle(32, 32, 26, MOSS) + circle(24, 26, 5, FERN) + circle(40, 36, 6, FERN), "eye" => circle(32, 32, 24, MARIGOLD) + circle(32, 32, 13, INK) + circle(37, 27, 4, SNOW),
  "net" => stroke("M6 6h52v52H6zM6 22h52M6 40h52M22 6v52M40 6v52", SAND, 3), "map" => path("M4 12 24 6l16 6 20-6v46l-20 6-16-6-20 6z", MOSS) + stroke("M24 6v46M40 12v46", INK, 2),
  "moon" => path("M44 6a27 27 0 1 0 14 38A24 24 0 0 1 44 6z", SAND), "boat" => path("M4 44h56l-8 14H14z", CORAL) + path("M30 6v32H8z", SNOW) + path("M34 14v24h18z", LAGOON)
}.freeze
# Those that move: the drawing at a moment from 0.0 to 1.0.
MOVING = {
  "egg" => ->(at) { egg("#f0c9d8", ROSE, open: at < 0.35 ? Math.sin(at * 60).abs * 1.5 : [(at - 0.35) * 60, 22].min) },
  "goose" => ->(at) { moved(goose(SNOW, CORAL, Math.sin(at * Math::PI * 4) * 9), Math.sin(at * Math::PI * 2) * 3, 0) },
  "reed" => ->(at) { reed(FERN, "#8a5a33", Math.sin(at * Math::PI * 2) * 9) },
  "owl" => ->(at) { owl("#7a6a8f", SNOW, lid: at.between?(0.42, 0.5) ? 18 : 0) },
  "dawn" => ->(at) { sun(MARIGOLD, CORAL, at * 45) },
  "tea" => ->(at) { mug(LAGOON, SNOW, -at * 5) },
  "peek" => ->(at) { nestbox("#cfe3a8", FERN, look: 14 - ([Math.sin(at * Math::PI * 2), 0].max * 14)) },
  "bob" => ->(at) { duck(MARIGOLD, MARIGOLD, CORAL, bob: Math.sin(at * Math::PI * 2) * 5) }
}.freeze
# Laid over the emote before them.
OVERLAYS = {"sparkle" => ->(at) { sparkles(MARIGOLD, 7 + (Math.sin(at * Math::PI * 2) * 5)) }}.freeze
BADGES = {
  "warden" => path("M32 4 56 14v18c0 16-12 24-24 28C20 56 8 48 8 32V14z", MARIGOLD) + circle(32, 30, 10, INK), "ringer" => circle(32, 32, 28, FERN) + stroke("M32 32m-12 0a12 12 0 1 0 24 0a12 12 0 1 0-24 0", SNOW, 6),
  "subscriber" => path("M32 4 60 32 32 60 4 32z", LAGOON) + circle(32, 32, 10, SNOW), "early_bird" => circle(32, 32, 28, ROSE) + %(<g transform="translate(10 10) scale(0.68)">#{sun(SNOW, SNOW, 0)}</g>),
  "bot" => "<rect x=\"6\" y=\"16\" width=\"52\" height=\"40\" rx=\"10\" fill=\"#8899aa\"/>#{circle(22, 36, 6, INK)}#{circle(42, 36, 6, INK)}#{stroke("M32 16V6", "#8899aa", 5)}"
}.freeze
AVATARS = {"reed" => [FERN, MOSS], "mere" => [LAGOON, "#2f6d86"], "sky" => [LILAC, ROSE], "clay" => [CORAL, SAND], "moss" => [MOSS, INK]}.freeze

def write(kind, name, text) = File.write(File.join(FOLDER, kind, "#{name}.svg"), "#{text}\n")

def film(drawing)
  frames = (0...FRAMES).map { |number| Vips::Image.svgload_buffer(svg(drawing.call(number.fdiv(FRAMES))), scale: 112 / 64.0) }
  Vips::Image.arrayjoin(frames, across: 1).mutate do |image|
    image.set_type!(GObject::GINT_TYPE, "page-height", frames.first.height)
    image.set_type!(Vips::ARRAY_INT_TYPE, "delay", [DELAY_MS] * FRAMES)
    image.set_type!(GObject::GINT_TYPE, "loop", 0)
  end
end

%w[emotes badges avatars].each { |kind| FileUtils.mkdir_p(File.join(FOLDER, kind)) }
STILLS.each { |name, inner| write("emotes", name, svg(inner)) }
MOVING.merge(OVERLAYS).each do |name, drawing|
  File.binwrite(File.join(FOLDER, "emotes", "#{name}.webp"), film(drawing).webpsave_buffer(Q: 85, effort: 4))
end
BADGES.each { |name, inner| write("badges", name, svg(inner)) }
AVATARS.each do |name, (ground, figure)|
  write("avatars", name,
    svg(%(<rect width="64" height="64" fill="#{ground}"/>) + circle(32, 26, 12, figure) + path("M8 64c0-16 11-24 24-24s24 8 24 24z", figure)))
end
puts "#{STILLS.size + MOVING.size + OVERLAYS.size} emotes, #{BADGES.size} badges, #{AVATARS.size} avatars"
