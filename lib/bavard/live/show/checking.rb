# frozen_string_literal: true

require_relative "../../core/checks/facts"
require_relative "../../core/cues/goal"
require_relative "../broadcast/goal_count"
require_relative "../part"

module Bavard
  module Live
    # What is known of a running show before its broadcast; what has to be measured or looked for on the disk is left to whoever asks.
    # Belongs to its show's thread.
    class Checking < Part
      Facts = Core::Checks::Facts
      # What of a stage is measured. recent:: PlayedChat::Recent by a chat piece's id
      Aired = Struct.new(:stage, :document, :recent)
      SHOW_VOICES = %w[voices portraits].freeze

      # @param now_ms [Integer]
      # @return [Core::Checks::Facts] without texts, chats and files
      def facts(now_ms)
        Facts.new(feeds: lanes.each_value.map { |lane| feed(lane) }, gate:, stages: desks.each_value.map { |desk| stage(desk, now_ms) },
          sounds:, voices: heard, cues: sheet, goals: desks.each_value.flat_map { |desk| goals(desk, now_ms) })
      end

      # @return [Array<Aired>] of the stages that are on air
      def aired(now_ms)
        desks.each_value.select { |desk| desk.stage.on_air }.map do |desk|
          chats = Core::Stage::Document.chat_pieces(desk.stage.on_air).map { |piece| piece["id"] }
          Aired.new(desk.stage.dup, desk.stage.on_air, chats.to_h { |id| [id, desk.air.recent(id, now_ms)] })
        end
      end

      # @return [Hash{String => Array}] ids of files that cues and the cast use, with where: {"sound" => [[id, where], …], …}
      def used
        by_cues = cues.document["cues"].select { |cue| cue["on"] }
        by_cast = voices.members.flat_map { |member| [member.face, *member.states.values].compact.map { |id| [id, member.name] } }
        {"sound" => of(by_cues, "sound"), "film" => of(by_cues, "film"), "figure" => of(by_cues, "picture") + by_cast}
      end

      private

      def pieces_on_air(kinds)
        documents = desks.each_value.filter_map { |desk| desk.stage.on_air }
        documents.flat_map { |document| document["pieces"].select { |piece| kinds.include?(piece["kind"]) && !piece["hidden"] } }
      end

      def of(by_cues, name) = by_cues.filter_map { |cue| [cue[name], cue["name"]] if cue[name] }

      def feed(lane)
        asks = lane.platform&.description&.then { |description| description.irc? ? [] : description.asks.select(&:each_time) } || []
        Facts::Feed.new(id: lane.feed.id, name: lane.feed.name, wanted: lane.feed.wanted, state: lane.state.state.to_s, reason: lane.state.reason,
          numbers: asks.to_h { |ask| [ask.label, lane.feed.address[ask.name].to_s.then { |value| value unless value.empty? }] },
          behind_ms: lane.clock_behind_ms)
      end

      def gate
        report = gatehouse.report(now_ms)
        Facts::Gate.new(hold: report[:hold], brake: report[:brake]&.fetch(:words), rules: report[:sets][report[:in_force]])
      end

      def stage(desk, now_ms)
        on_air = desk.stage.on_air
        Facts::Stage.new(id: desk.id, name: desk.stage.name, document: on_air, revision: desk.stage.revision,
          waiting: on_air ? desk.editor.changes.size : 0, screens: desk.screens.cards(on_air || desk.stage.draft, desk.stage.revision, now_ms))
      end

      def sounds
        heard = cues.document["cues"].count { |cue| cue["on"] && (cue["sound"] || Core::Cues::Spoken.any?(cue)) }
        Facts::Sounds.new(cues: heard, screens: sounding.able.size, heard: sounding.next_heard&.words)
      end

      def heard
        here = voices.rooms.each_value.flat_map { |room| room.members.map(&:key) }
        Facts::Voices.new(drawn: pieces_on_air(SHOW_VOICES).any?, people: voices.members.select { |member| here.include?(member.key) })
      end

      def sheet
        all = cues.document["cues"]
        names = all.to_h { |cue| [cue["id"], cue["name"]] }
        findings = @show.cue_findings.filter_map { |id, why| [names[id], why] if names[id] }
        Facts::Cues.new(on: all.count { |cue| cue["on"] }, own: all != Core::Cues::Cue.defaults, findings:,
          played_on: desks.each_value.select(&:plays_alerts?).map { |desk| desk.stage.name })
      end

      def goals(desk, now_ms)
        return [] unless desk.stage.on_air

        Core::Stage::Document.pieces_of(desk.stage.on_air, Core::Pieces::GoalPiece).reject { |piece| piece["hidden"] }.map { |piece| goal(desk, piece, now_ms) }
      end

      def goal(desk, piece, now_ms)
        counted = GoalCount.new(piece, tallies, now_ms, now_ms).value + desk.live.counts.besides(piece)
        Facts::Goal.new(stage: desk.id, title: Core::Cues::Goal.called(piece), value: Core::Cues::Goal.of(piece, counted)[:value],
          from: piece["from"], to: piece["to"], since: piece["since"], unread: (piece["starts"] if unread?(piece)))
      end

      def unread?(piece) = piece["since"] == "start" && Core::Cues::Goal.until(piece["starts"].to_s).nil?
    end
  end
end
