# frozen_string_literal: true

require_relative "../../error"
require_relative "stage_desk"
require_relative "../part"

module Bavard
  module Live
    # What pages ask of a show about its stages. For use inside {Show#ask} only.
    class StageDoor < Part
      # Other threads read it too, as when a screen comes: it is never changed, but another one.
      #
      # @return [Hash{Integer => StageDesk}] in the show's order
      attr_reader :desks

      # @param mark [#call] gives a line's [shape, colour]
      # @param means [Means] what stages are made with
      def initialize(show, means, mark)
        super(show)
        @means = means
        @mark = mark
        @desks = {}.freeze
        @removed = {}
      end

      # @param stages [Array<Store::Stages::Stage>]
      # @param said [Array<Core::Chat::Line>] before, oldest first
      def load(stages, said) = @desks = stages.to_h { |stage| [stage.id, desk_with(stage, said)] }.freeze

      # @return [StageDesk]
      # @raise [Bavard::Gone]
      def desk(stage_id)
        desks[stage_id] || raise(Gone.new("That stage is no longer there.", field: "stage", value: stage_id))
      end

      # Takes all lines off the picture of a stage.
      def clear_air(stage_id)
        desk(stage_id).clear_air(@show.ids.next(now_ms))
      end

      # @param stage [Store::Stages::Stage] one that is new, or was before
      def add_stage(stage)
        @desks = desks.merge(stage.id => desk_with(stage)).freeze unless desks.key?(stage.id)
      end

      # Nobody sees it any more; it is kept, with its way back.
      #
      # @return [Integer, nil] a stage to look at instead
      def remove_stage(stage_id)
        desk = desk(stage_id)
        @removed[stage_id] = desk
        @desks = desks.except(stage_id).freeze
        desk.close
        now = now_ms
        journal.deed(:stages, :remove, stage_id, now)
        desks.keys.first
      end

      # @raise [Gone] where it cannot be put back
      def removed_stage(stage_id)
        @removed.fetch(stage_id, nil) || raise(Gone.new("That stage cannot be put back any more.", field: "stage", value: stage_id))
      end

      # @raise [Bavard::Gone] where it was taken away too long ago
      def put_back_stage(stage_id)
        desk = removed_stage(stage_id)
        @removed.delete(stage_id)
        journal.deed(:stages, :put_back, stage_id)
        order_with(desks.merge(stage_id => desk).sort_by { |_, one| one.stage.place }.map(&:first), desks.merge(stage_id => desk))
      end

      # @param ids [Array<Integer>] of its stages, in their new order
      def order_stages(ids)
        raise Error.new("These are not the show's stages.", field: "ids", value: ids) unless ids.sort == desks.keys.sort

        order_with(ids, desks)
        journal.deed(:stages, :keep_order, ids)
      end

      # Lines that name the host are told by it from now on.
      def host=(name)
        shared.host = name
      end

      private

      # Viewers never saw it, and never are to.
      def only_draft?(line) = line.state.name == :draft || line.state.was == :draft || lanes[line.feed_id]&.feed&.draft_only

      def order_with(ids, all)
        @desks = ids.each_with_index.to_h { |id, place| [id, all.fetch(id).tap { |desk| desk.stage.place = place }] }.freeze
      end

      # @param said [Array<Core::Chat::Line>] before, oldest first
      # What all stages draw from.
      def shared
        @shared ||= Playout::Shared.new(@mark, -> { wardrobe }, record.host_name, -> { voices }, -> { tallies }, -> { gatehouse },
          -> { @show.cues.document["cues"] })
      end

      def desk_with(stage, said = [])
        aired = said.reject { |line| only_draft?(line) }
        desk = StageDesk.new(stage, @means, shared, lines: said, aired:) { |style| desks.each_value { |one| one.editor.adopt(style) } }
        listen_to(desk)
      end

      def listen_to(desk)
        desk.air.reached = ->(piece, how, number) { @show.happenings.reached(piece, how, number) }
        desk.air.left = ->(line_id, why) { @show.sightings.add(line_id, ["gone", now_ms, [desk.stage.name, why]]) if lines[line_id] }
        desk
      end
    end
  end
end
