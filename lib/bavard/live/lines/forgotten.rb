# frozen_string_literal: true

module Bavard
  module Live
    # What is still known of the lines that a {LineBook} keeps no more: nothing can be done about them, but a platform may take them away, and
    # the log, which says so a while later where the database is slow, must not be believed before.
    class Forgotten
      # So many of the newest.
      MOST = 10_000
      # taken:: :pulled or :deleted, or nil where it stands
      Left = Struct.new(:id, :lane_id, :platform_id, :login, :taken)

      def initialize
        @lines = {}
        @by_platform_id = {}
      end

      # @param kept [LineBook::Kept]
      def add(kept)
        line = kept.line
        left = Left.new(kept.id, kept.lane_id, line.platform_id, line.person.login, (kept.state.name if kept.state.taken?))
        @lines[left.id] = left
        @by_platform_id[[left.lane_id, left.platform_id]] = left if left.platform_id
        drop_oldest if @lines.size > MOST
      end

      # @return [Array<Integer>] the line that its platform takes away, where it is here
      def delete(lane_id, platform_id) = [@by_platform_id[[lane_id, platform_id]]].compact.select { |left| taken(left) }.map(&:id)

      # @param login [String, nil] nil: everybody's
      # @return [Array<Integer>] lines that a platform takes away with all that somebody said
      def delete_of(lane_id, login)
        @lines.each_value.select { |left| left.lane_id == lane_id && (login.nil? || left.login == login) && taken(left) }.map(&:id)
      end

      # @return [Symbol, nil] who took it away, as a {Core::Moderation::LineState} has it
      def taken_away(line_id) = @lines[line_id]&.taken

      private

      # @return [Boolean] whether it stood until now
      def taken(left) = left.taken.nil? && (left.taken = :deleted) && true

      def drop_oldest
        left = @lines.shift.last
        key = [left.lane_id, left.platform_id]
        @by_platform_id.delete(key) if @by_platform_id[key].equal?(left)
      end
    end
  end
end
