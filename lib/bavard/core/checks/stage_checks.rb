# frozen_string_literal: true

require_relative "../pieces/pieces"
require_relative "../stage/covering"
require_relative "facts"

module Bavard
  module Core
    module Checks
      # Whether what was made is what viewers see.
      module OnAirCheck
        extend Saying

        KEY = "on_air"

        class << self
          # @return [Finding, nil] nothing where there is no stage
          def of(facts)
            return if facts.stages.empty?

            empty = facts.stages.select { |stage| stage.document.nil? }
            return empty(empty, facts.stages) if empty.size == facts.stages.size

            behind = (facts.stages - empty).select { |stage| stage.waiting.positive? }
            behind.empty? ? well("What you made is on air", shown(facts.stages - empty, empty)) : waiting(behind)
          end

          private

          def shown(aired, empty)
            words = "#{named(aired.map { |stage| "#{stage.name} r#{stage.revision}" })}."
            empty.empty? ? words : "#{words} Nothing of #{named(empty.map(&:name))} is on air yet."
          end

          def empty(stages, all)
            title = all.size == 1 ? "Nothing of #{stages.first.name} is on air" : "Nothing is on air"
            look(title, "Its link shows an empty picture until it is put on air.", at: at(stages.first), mend: put_on_air(stages.first))
          end

          def waiting(stages)
            first = stages.first
            words = stages.map { |stage| "#{stage.name}: #{many(stage.waiting, "change")}" }
            look("Not all you made is on air", "#{named(words)}. Viewers see what was there before.", at: at(first), mend: put_on_air(first))
          end

          def put_on_air(stage) = Mend.new(words: "Put #{stage.name} on air", path: "/stage/#{stage.id}/put-on-air", sends: {}, form: true)
          def at(stage) = "/stage/#{stage.id}"
        end
      end

      # Whether a screen shows it, in its true size and as it is now.
      module ScreensCheck
        extend Saying

        KEY = "screens"
        FACES = "uses another face for %s, which its computer does not have"

        class << self
          def of(facts)
            shown = facts.stages.flat_map { |stage| stage.screens.map { |screen| [stage, screen] } }
            return look("No screen shows it yet", "Copy a link into your broadcast program; it is noticed here.") if shown.empty?

            wrong = shown.reject { |_, screen| screen[:fine] }
            wrong.empty? ? well(right(shown), sizes(shown)) : troubled(*wrong.first, wrong.size)
          end

          private

          def right(shown) = shown.size == 1 ? "One screen shows it" : "#{shown.size} screens show it"

          def sizes(shown)
            sizes = shown.map { |stage, screen| "#{stage.name} at #{screen[:drawn].join(" × ")}" }.uniq
            "#{named(sizes)}, in #{sizes.one? ? "its" : "their"} true size."
          end

          def troubled(stage, screen, count)
            title, words = trouble(stage, screen)
            look(count == 1 ? "One screen #{title}" : "#{count} screens: one #{title}", words)
          end

          def trouble(stage, screen)
            if screen[:drawn].nil? then ["has not said how it is drawn", "It shows #{stage.name}, and is asked again."]
            elsif !screen[:right] then ["is not as large as its stage", "#{sentence(screen[:words])}. #{screen[:advice]}"]
            elsif !screen[:current] then ["shows an old #{stage.name}",
              "It has r#{screen[:revision]}; r#{stage.revision} is on air. Reload its page."]
            elsif screen[:missing].any? then ["lacks a face", "#{stage.name} #{format(FACES, named(screen[:missing]))}."]
            elsif screen[:not_understood].any? then ["does not understand its link", "#{named(screen[:not_understood])} in its link means nothing."]
            else ["says nothing", "It showed #{stage.name}, and was last heard #{screen[:heard] / 1000} s ago."]
            end
          end

          def sentence(words) = words[0].upcase + words[1..]
        end
      end

      # What viewers cannot see though it is on air.
      module HiddenCheck
        extend Saying

        KEY = "hidden"

        class << self
          # @return [Finding, nil]
          def of(facts)
            aired = facts.stages.select(&:document)
            return if aired.empty?

            stage, found = aired.lazy.flat_map { |one| Stage::Covering.findings(one.document).map { |finding| [one, finding] } }.first
            stage ? covered(stage, found) : well("Nothing is hidden by accident", purpose(aired))
          end

          private

          def purpose(aired)
            off = aired.flat_map { |stage| stage.document["pieces"].select { |piece| piece["hidden"] }.map { |piece| Pieces.label(piece) } }
            off.empty? ? "Every piece is on the picture, and none lies on another." : "Switched off on purpose: #{named(off)}."
          end

          def covered(stage, found)
            title = "#{found.label} is #{{outside: "outside of the picture", under: "under #{found.by}", over: "over #{found.by}"}.fetch(found.how)}"
            look(title, "On #{stage.name}, #{found.percent} % of it.", at: "/stage/#{stage.id}##{found.piece}", mend: inward(stage, found))
          end

          def inward(stage, found)
            return unless found.moved

            edit = {"do" => "set", "piece" => found.piece, "values" => found.moved}
            Mend.new(words: "Move it in, in the draft", path: "/stage/#{stage.id}/edits", sends: edit, form: false)
          end
        end
      end
    end
  end
end
