# frozen_string_literal: true

require "json"
require_relative "../core/gate/left_out"
require_relative "../error"
require_relative "deeds"

module Bavard
  module Store
    # Writes what people do and what a show sets. All of it is plain data, which can wait in a file, and does the same when it is written
    # once more, in the same order.
    class DeedWriting
      # Methods of stores, by the store's name in Stores.
      WAYS = {
        shows: %i[rename keep_gate keep_cues keep_lead keep_small_leads],
        stages: %i[put_on_air keep_draft keep_live keep_air_at_once keep_cleared keep_doubt keep_order keep_backdrop rename remove put_back],
        feeds: %i[keep remove], lines: %i[pull_line put_back], left_out: %i[add take_back], deeds: %i[add undone]
      }.freeze
      # What is handed over and is more than JSON knows.
      STRUCTS = {"left_out" => Core::Gate::LeftOut::Entry, "deed" => Deeds::Deed}.freeze
      # given, named:: what the method takes
      Deed = Struct.new(:store, :way, :given, :named)

      # What stands there once, and whoever runs the show has in memory.
      SETTINGS = %i[shows stages feeds].freeze

      # @param moved [#call, nil] takes a show's id and says whether another process has taken it since; nil: there are no others
      # @param stores [Hash{Symbol => Object}] those of WAYS
      def initialize(moved: nil, **stores)
        @stores = stores
        @moved = moved
      end

      # @param deed [Deed]
      # @raise [Conflict] where it would be set over what was set where the show runs now
      def write(deed)
        raise Conflict, "Its show has gone on in another process: #{deed.store}.#{deed.way}" if @moved && overtaken?(deed)

        @stores.fetch(deed.store).public_send(deed.way, *deed.given, **deed.named)
      end

      # @return [String] a line of JSON
      def self.to_line(deed) = JSON.generate([deed.store, deed.way, *plain([deed.given, deed.named])])

      # @param line [String] perhaps the first half of one
      # @return [Deed, nil]
      def self.from_line(line)
        store, way, given, named = JSON.parse(line)
        deed = Deed.new(store.to_sym, way.to_sym, given.map { |one| whole(one) }, named.transform_keys(&:to_sym))
        deed if WAYS.fetch(deed.store, []).include?(deed.way)
      rescue JSON::ParserError, NoMethodError
        nil
      end

      def self.plain(value)
        case value
        when *STRUCTS.values then {"_" => STRUCTS.key(value.class), "with" => plain(value.to_h)}
        when Array then value.map { |one| plain(one) }
        else value.respond_to?(:to_hash) ? value.to_hash.transform_values { |one| plain(one) } : value
        end
      end

      def self.whole(value)
        struct = value.is_a?(Hash) && STRUCTS[value["_"]] or return value
        with = value["with"].transform_keys(&:to_sym)
        struct.keyword_init? ? struct.new(**with) : struct.new(*with.values_at(*struct.members))
      end
      private_class_method :plain, :whole

      private

      def overtaken?(deed)
        return false unless SETTINGS.include?(deed.store)

        id = [*deed.given.first].first
        show_id = deed.store == :shows ? id : @stores.fetch(deed.store).find(id)&.show_id
        !show_id.nil? && @moved.call(show_id)
      end
    end
  end
end
