# frozen_string_literal: true

require "json"

module Bavard
  module Live
    # What the keys of a line's card are short for. Cards are most of what goes to pages, so their keys are a letter or two. Scripts have the
    # same in assets/js/link/card_keys.js, which bin/formats writes; tests compare it, what is sent and what is read.
    module CardKeys
      # Of every line's.
      LINE = {
        i: "id of the line",
        t: "when it is shown as said, Unix milliseconds",
        n: "name as it is shown",
        c: "the name's colour, #rrggbb",
        k: "kind: said, action, reply, paid, or of an event",
        m: "mark of its feed: shape, colour",
        f: "fragments: kind, text; of an emote kind, text, picture, ratio, whether it moves, and text and picture of what lies over it",
        b: "badges: kind, words, picture or null, letter, colour",
        x: "1 where there is nothing but emotes",
        o: "origin, where it is not a feed",
        r: "what it answers to: n whose, t words",
        v: "what was paid, in words",
        w: "1 where it is a person's first line",
        e: "what happened, in words, of an event"
      }.freeze
      # Of a line's in a piece, besides.
      PIECE = {
        d: "the name's colour in the piece's other form",
        p: "the plate's colour",
        a: "avatar: picture or null, letter",
        h: "the time it was said, in words",
        l: "why it stands out",
        z: "how long it still stands, milliseconds, where it leaves by its time alone"
      }.freeze
      # Of a line's in a lane or a prompter, besides.
      DESK = {
        day: "the name's colour on a bright ground",
        off: "label of the rule that kept it off",
        pulled: "true where somebody took it away",
        fd: "id of its lane",
        p: "login of whoever said it",
        s: "what has become of it, as LineState has it",
        rule: "label of the rule that said something of it",
        why: "what that rule said",
        as: "how it is shown, where that is otherwise",
        at: "what it is to the host: mention, question, first, supporter",
        mk: "how moderators marked it",
        ed: "true where its writer has changed it"
      }.freeze
      ABOUT = {LINE: "Of every line’s.", PIECE: "Of a line’s in a piece, besides.", DESK: "Of a line’s in a lane or a prompter, besides."}.freeze

      # @return [String] the same as a script
      def self.script
        groups = ABOUT.map do |group, about|
          keys = const_get(group).map { |key, words| "  #{key}: #{JSON.generate(words)},\n" }
          "\n// #{about}\nexport const #{group} = {\n#{keys.join}};\n"
        end
        "// What the keys of a line’s card are short for: written by bin/formats from lib/bavard/live/lines/card_keys.rb.\n#{groups.join}"
      end
    end
  end
end
