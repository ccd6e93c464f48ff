# frozen_string_literal: true

require_relative "../../../core/find/everyday"
require_relative "../../../core/find/finder"
require_relative "../all/station"

module Bavard
  module Web
    # Finds a station, a room, a piece, a setting, a cue, a rule or a person by any of the words that people use for it.
    class FindApp < Station
      set :needs_to_see, :read

      Entry = Core::Find::Entry
      WORDS = {
        "feeds" => "chats platforms connect sources irc voices", "gate" => "filter moderation block words spam rules",
        "dress" => "emotes emoji badges look", "stage" => "overlay picture layout editor", "air" => "link browser source screens url checks",
        "cast" => "faces voices people portraits", "cues" => "alerts events sounds goals notifications", "files" => "music films videos uploads",
        "fellows" => "shout outs friends", "people" => "moderators invite roles helpers audit", "log" => "history search export chat",
        "report" => "statistics numbers summary", "describe" => "api own platform websocket"
      }.transform_values(&:split).freeze
      MOST_PEOPLE = 500
      # Rooms that are what their station is called.
      NAMED_ALIKE = %w[feeds gate dress air].freeze
      # What nobody sets by itself.
      UNNAMED = %w[id kind bright].freeze

      get "/" do
        words = text(params["q"])
        found = Core::Find::Finder.new(entries(text(params["stage"])[/\A\d{1,18}\z/]&.to_i)).find(words)
        json(found: found.map { |entry| entry.to_h.slice(:kind, :label, :where, :at).compact } + in_the_log(words.strip))
      end

      helpers do
        def entries(stage_id)
          stages, cues, gate, people = ask { |show| known(show) }
          all = places + Parts.of(@visitor) + people.map { |name, login| person(name, login) }
          all += rules(gate) if @visitor.may?(:act)
          return all unless @visitor.may?(:direct)

          all + pieces(stages) + to_set_on(stages.find { |stage| stage.id == stage_id } || stages.first) + of_cues(cues)
        end

        def known(show)
          [show.desks.each_value.map { |desk| desk.stage.dup }, show.cues.document["cues"], show.record.gate, people(show)]
        end

        def person(name, login)
          Entry.new(kind: "person", label: name, at: "/log/?#{Rack::Utils.build_query("person" => login)}", also: [login])
        end

        def places
          stations = STATIONS.map { |key, path, label, _| Entry.new(kind: "station", label:, at: path, also: WORDS[key]) }
          stations << Entry.new(kind: "station", label: "Prompter", at: "/prompter/", also: %w[read chat column moderate])
          rooms = Rooms::ALL.values.flatten.select { |room| @visitor.may?(room.right) && !NAMED_ALIKE.include?(room.key) }
          stations + rooms.map { |room| Entry.new(kind: "room", label: room.label, at: room.path, also: WORDS[room.key]) }
        end

        # Who wrote lately, the newest first.
        def people(show)
          lately = show.lines.to_a.reverse_each.map { |kept| kept.line.person }.uniq(&:login)
          lately.first(MOST_PEOPLE).map { |one| [one.display_name, one.login] }
        end

        def pieces(stages)
          stages.flat_map do |stage|
            stage.draft["pieces"].map do |piece|
              Entry.new(kind: "piece", label: Core::Pieces.label(piece), where: stage.name, at: "/stage/#{stage.id}##{piece["id"]}",
                also: [piece["kind"]])
            end
          end
        end

        # Of one stage: on all of them the same would stand there many times.
        def to_set_on(stage)
          # Of those alike the ones in front come first.
          stage ? stage.draft["pieces"].reverse.flat_map { |piece| to_set_about(piece, "/stage/#{stage.id}##{piece["id"]}") } : []
        end

        def to_set_about(piece, at)
          where = Core::Pieces.label(piece)
          Core::Pieces.kind(piece["kind"]).properties.except(*UNNAMED).map do |name, property|
            label = property.label[0].upcase + property.label[1..]
            Entry.new(kind: "setting", label:, where:, at: "#{at}.#{name}", also: Core::Find::Everyday.of(name))
          end
        end

        def of_cues(cues)
          cues.map { |cue| Entry.new(kind: "cue", label: cue["name"], where: "Cue sheet", at: "/dress/cues/##{cue["id"]}", also: [cue["kind"]]) }
        end

        def rules(gate)
          Core::Gate::Settings.in_force(gate)["rules"].map do |rule|
            Entry.new(kind: "rule", label: Core::Gate::Rules.label(rule["kind"]), where: "Gate", at: "/gate", also: [rule["kind"].tr("_", " ")])
          end
        end

        # Lines are looked for where they are kept.
        def in_the_log(words)
          return [] if words.empty?

          [{kind: "line", label: "Lines with “#{words[0, 60]}”", at: "/log/?#{Rack::Utils.build_query("text" => words[0, 200])}"}]
        end
      end
    end
  end
end

require_relative "parts"
