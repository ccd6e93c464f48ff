# frozen_string_literal: true

require_relative "facts"

module Bavard
  module Core
    module Checks
      # Whether every file that is used is there.
      module FilesCheck
        extend Saying

        KEY = "files"
        THINGS = {"picture" => "picture", "figure" => "cue or cast picture", "film" => "film", "sound" => "sound", "font" => "font",
                  "emote" => "emote"}.freeze

        class << self
          def of(facts)
            facts.files.missing.any? ? missing(facts.files.missing) : well("Every file is there", counted(facts.files.many), at: "/dress/files")
          end

          private

          def missing(missing)
            where = missing.map { |kind, used| "The #{THINGS.fetch(kind)} of #{used}" }
            look("#{many(missing.size, "file")} not there", "#{named(where)}.", at: "/dress")
          end

          def counted(by_kind)
            some = by_kind.filter_map { |kind, count| many(count, THINGS.fetch(kind)) if count.positive? }
            some.empty? ? "None is used." : "#{some.join(", ")}."
          end
        end
      end

      # Whether what cues play is heard, and once.
      module SoundsCheck
        extend Saying

        KEY = "sounds"

        class << self
          # @return [Finding, nil] nothing where nothing is heard
          def of(facts)
            sounds = facts.sounds
            return if sounds.cues.zero?
            unless sounds.heard
              return look("No screen is heard",
                "#{many(sounds.cues, "cue")} with a sound, and no screen that shows alerts can play it.")
            end

            others = sounds.screens - 1
            well("Sounds are heard once", "From #{sounds.heard}#{"; #{many(others, "other")} would take over" if others.positive?}.",
              at: "/dress/cues")
          end
        end
      end

      # Whether those who talk have a face.
      module VoicesCheck
        extend Saying

        KEY = "voices"

        class << self
          # @return [Finding, nil] nothing where no stage shows who talks
          def of(facts)
            voices = facts.voices
            return unless voices.drawn

            bare = voices.people.select { |member| member.face.nil? && member.states.empty? }
            bare.any? ? faceless(bare.map { |member| member.short || member.name }) : all_faces(voices.people.size)
          end

          private

          def faceless(names)
            look("#{named(names)} without a face", "They are drawn with a letter. Give them a picture in the cast.", at: "/dress/cast")
          end

          def all_faces(count)
            words = count.zero? ? "Nobody is in a voice room just now." : "#{many(count, "person", "people")} in voice rooms."
            well("Everybody who talks has a face", words, at: "/dress/cast")
          end
        end
      end

      # Whether cues can play.
      module CuesCheck
        extend Saying

        KEY = "cues"

        class << self
          # @return [Finding, nil] nothing where no cue is in force
          def of(facts)
            cues = facts.cues
            return if cues.on.zero?
            return nowhere(cues) if cues.played_on.empty?

            name, why = cues.findings.first
            return look("“#{name}” does not play as it says", "#{why}.", at: "/dress/cues") if name

            well("#{many(cues.on, "cue")} can play", "On #{named(cues.played_on)}.", at: "/dress/cues")
          end

          private

          # Not everybody wants alerts; whoever made cues does.
          def nowhere(cues)
            words = "No stage on air has a piece for alerts, where #{many(cues.on, "cue")} would play."
            cues.own ? look("Cues play nowhere", words, at: "/stage") : well("No alerts are shown", words, at: "/stage")
          end
        end
      end

      # Whether goals begin where they should.
      module GoalsCheck
        extend Saying

        KEY = "goals"
        SINCE = {"broadcast" => "since the broadcast began", "day" => "since midnight", "month" => "since the month began", "ever" => "in all",
                 "start" => "since its own start"}.freeze

        class << self
          # @return [Finding, nil] nothing where no goal is on air
          def of(facts)
            return if facts.goals.empty?

            wrong = facts.goals.find { |goal| trouble(goal) }
            return look(*trouble(wrong), at: "/stage/#{wrong.stage}") if wrong

            well("Goals begin where they should", "#{named(facts.goals.map { |goal| stands(goal) }.uniq, 2, between: "; ")}.")
          end

          private

          def trouble(goal)
            return ["“#{goal.title}” begins at no time", "“#{goal.unread}” is no time, so it counts since the broadcast began."] if goal.unread
            return ["“#{goal.title}” leads nowhere", "It goes from #{number(goal.from)} to #{number(goal.to)}."] if goal.from == goal.to

            ["“#{goal.title}” is reached already", "#{stands(goal)}."] if reached?(goal)
          end

          def reached?(goal) = goal.to > goal.from ? goal.value >= goal.to : goal.value <= goal.to
          def stands(goal) = "#{goal.title}: #{number(goal.value)} of #{number(goal.to)}, #{SINCE.fetch(goal.since)}"
          def number(value) = Cues::Goal.written(value)
        end
      end
    end
  end
end
