# frozen_string_literal: true

require_relative "../core/moderation/deed"
require_relative "lines"

module Bavard
  module Store
    # Takes away what is kept of a viewer who wants to be forgotten. That something came, when, what became of it and what was given with it
    # stays, so that what was counted stays true; who it was and what they wrote does not.
    class Erasing
      # Whose lines they are: known by feed and login; name:: as it was shown last; lines:: how many; first_ms, last_ms:: Unix milliseconds
      Writer = Struct.new(:feed_id, :login, :name, :lines, :first_ms, :last_ms)
      MOST_FOUND = 12
      # What a line of somebody who gave something still says.
      COUNTED = %w[paid number].freeze
      # Of a step what is told of it, but what it quotes: which rules found something, and that its writer changed it.
      RULES = "(SELECT coalesce(jsonb_agg(jsonb_build_object('rule', found->'rule')), '[]') FROM jsonb_array_elements(step->2->'found') AS found)"
      STEP = "CASE WHEN step->>0 = 'edited' THEN step - 2 " \
             "WHEN jsonb_typeof(step->2) = 'object' THEN jsonb_build_array(step->0, step->1, (step->2) || jsonb_build_object('found', #{RULES})) " \
             "ELSE step END".freeze
      LEFT = {
        **Lines::ERASED, colour: nil, badges: Sequel.lit("'[]'::jsonb"), text: "", seen: nil,
        trace: Sequel.lit("(SELECT coalesce(jsonb_agg(#{STEP}), '[]') FROM jsonb_array_elements(trace) AS step)"),
        detail: Sequel.lit("(SELECT coalesce(jsonb_object_agg(key, value), '{}') FROM jsonb_each(detail) WHERE key IN ?)", COUNTED)
      }.freeze

      def initialize(db)
        @db = db
      end

      # @param name [String] login or shown name, in any case
      # @return [Array<Writer>] who wrote as that, most lines first
      def writers(show_id, name)
        called = Sequel.|(*%i[login display_name].map { |column| {Sequel.function(:lower, column) => name.downcase} })
        @db[:lines].where(show_id:).where(called).exclude(login: "").exclude(feed_id: nil).group(:feed_id, :login).reverse(:lines).limit(MOST_FOUND)
          .select_map([:feed_id, :login, Sequel.lit("(array_agg(display_name ORDER BY id DESC))[1]").as(:name), Sequel.function(:count).*.as(:lines),
            Sequel.function(:min, :arrived_at_ms).as(:first_ms), Sequel.function(:max, :arrived_at_ms).as(:last_ms)])
          .map { |values| Writer.new(*values) }
      end

      # Does the same once more where it is done once more.
      #
      # @param feed_id [Integer] one of the show's, also where it is not listened to any more
      # @return [Integer] how many lines were theirs
      def erase(show_id, feed_id, login)
        @db.transaction do
          theirs = @db[:lines].where(show_id:, feed_id:, login:)
          names = [login, *theirs.distinct.select_map(:display_name)].map(&:downcase).uniq
          quoting(show_id, feed_id, theirs, names).update(detail: Sequel.lit("detail - 'reply'"))
          deeds = @db[:deeds].where(show_id:, what: Core::Moderation::Deed::OF_WRITERS, Sequel.function(:lower, :about) => names)
          deeds.update(about: nil, detail: Sequel.lit("detail - 'text'"))
          @db[:people].where(feed_id: @db[:feeds].where(show_id:, id: feed_id).select(:id), login:).delete
          theirs.update(LEFT)
        end
      end

      private

      # Lines of others that repeat what they wrote.
      def quoting(show_id, feed_id, theirs, names)
        of_theirs = {Sequel.lit("detail->'reply'->>0") => theirs.exclude(platform_id: nil).select(:platform_id)}
        @db[:lines].where(show_id:, feed_id:).where(Sequel.lit("jsonb_exists(detail, 'reply')"))
          .where(Sequel.|(of_theirs, {Sequel.lit("lower(detail->'reply'->>1)") => names}))
      end
    end
  end
end
