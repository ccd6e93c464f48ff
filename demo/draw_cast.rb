# frozen_string_literal: true

# Draws the demo's cast: made-up people of the observatory, each with a face and a picture for every state.
#   ruby demo/draw_cast.rb      writes demo/pictures/cast/*.svg

require "fileutils"

module Bavard
  module Demo
    # Busts of a few shapes, all on the same base line.
    class DrawCast
      FOLDER = File.expand_path("pictures/cast", __dir__)
      STATES = %w[silent talking loud muted blink].freeze
      # skin, hair, coat, hat
      PEOPLE = {
        "odalys" => %w[#d9a37c #3d2a24 #2f6f73 beanie], "ibrahim" => %w[#8a5a3c #1f1a18 #8c5a2b cap],
        "sunniva" => %w[#f0c9a8 #c98b4a #5d7f4a none], "teo" => %w[#e5b48f #5a4636 #44506b hood]
      }.freeze
      MOUTHS = {
        "silent" => '<path d="M136 214q24 12 48 0" fill="none" stroke="#4a2a26" stroke-width="6" stroke-linecap="round"/>',
        "talking" => '<path d="M138 208q22-10 44 0 2 30-22 32-24-2-22-32z" fill="#4a1f22"/><path d="M146 232q14-10 28 0-14 12-28 0z" fill="#d7776f"/>',
        "loud" => '<path d="M130 204q30-14 60 0 4 50-30 54-34-4-30-54z" fill="#4a1f22"/><path d="M142 246q18-14 36 0-18 14-36 0z" fill="#d7776f"/>'
      }.freeze

      def draw
        FileUtils.mkdir_p(FOLDER)
        PEOPLE.each do |name, look|
          STATES.each { |state| File.write(File.join(FOLDER, "#{name}_#{state}.svg"), figure(look, state)) }
          File.write(File.join(FOLDER, "#{name}.svg"), face(look))
        end
      end

      private

      def figure((skin, hair, coat, hat), state)
        <<~SVG
          <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 320 420" width="640" height="840">
          #{bust(skin, hair, coat, hat)}#{eyes(state)}#{MOUTHS[state] || MOUTHS["silent"]}#{muted(state)}
          </svg>
        SVG
      end

      def face((skin, hair, coat, hat))
        <<~SVG
          <svg xmlns="http://www.w3.org/2000/svg" viewBox="20 40 280 280" width="560" height="560">
          <path d="M20 40h280v280H20z" fill="#cfe3df"/>#{bust(skin, hair, coat, hat)}#{eyes("silent")}#{MOUTHS["silent"]}
          </svg>
        SVG
      end

      def bust(skin, hair, coat, hat)
        %(<path d="M30 420q0-126 92-142h76q92 16 92 142z" fill="#{coat}"/><path d="M132 250h56v50q-28 24-56 0z" fill="#{skin}"/>) +
          back(hair, hat) + %(<ellipse cx="160" cy="176" rx="74" ry="86" fill="#{skin}"/>) + top(hair, coat, hat)
      end

      def back(hair, hat)
        hat == "none" ? %(<path d="M74 180q-8-112 86-112t86 112q4 70-18 96h-24V150h-88v126H92q-22-26-18-96z" fill="#{hair}"/>) : ""
      end

      def top(hair, coat, hat)
        case hat
        when "beanie" then %(<path d="M84 140q2-84 76-84t76 84q-76-28-152 0z" fill="#c4553f"/><path d="M80 146q80-34 160 0v-26q-80-34-160 0z" fill="#e58a63"/>) +
          %(<circle cx="160" cy="50" r="15" fill="#f2d9b8"/>)
        when "cap" then %(<path d="M86 138q0-76 74-76t74 76z" fill="#3f5e46"/><path d="M150 134q62-14 108 14-40 6-108-4z" fill="#2e4634"/><path d="M92 214q68 96 136 0v20q-68 86-136 0z" fill="#{hair}"/>)
        when "hood" then %(<path d="M66 200q-8-144 94-144t94 144q-8 58-34 76 18-60 8-106-20-54-68-54t-68 54q-10 46 8 106-26-18-34-76z" fill="#{coat}"/>) +
          %(<path d="M100 134q60-44 120 0-60-16-120 0z" fill="#{hair}"/>)
        else %(<path d="M84 160q10-84 76-84t76 84q-40-46-76-46t-76 46z" fill="#{hair}"/>)
        end
      end

      def eyes(state)
        if state == "blink"
          return %(<path d="M118 168q14 8 28 0m28 0q14 8 28 0" fill="none" stroke="#2a2220" stroke-width="6" stroke-linecap="round"/>)
        end

        brow = state == "loud" ? 138 : 146
        <<~SVG.delete("\n")
          <circle cx="132" cy="168" r="9" fill="#2a2220"/><circle cx="188" cy="168" r="9" fill="#2a2220"/>
          <path d="M116 #{brow}q16-8 32 0m24 0q16-8 32 0" fill="none" stroke="#2a2220" stroke-width="5" stroke-linecap="round"/>
        SVG
      end

      def muted(state)
        return "" unless state == "muted"

        %(<path d="M128 206h64v22h-64z" rx="6" fill="#f2efe6" stroke="#bdb7a6" stroke-width="3"/><path d="M140 206v22m20-22v22m20-22v22" stroke="#d8d2c2" stroke-width="2"/>)
      end
    end
  end
end

Bavard::Demo::DrawCast.new.draw if $PROGRAM_NAME == __FILE__
