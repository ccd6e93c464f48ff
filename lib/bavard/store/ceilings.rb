# frozen_string_literal: true

require_relative "../core/cues/settings"
require_relative "../core/gate/rule_set"
require_relative "../core/stage/document"
require_relative "../error"

module Bavard
  module Store
    # How much one show may have: so much that no host ever comes near it, and so little that none fills the machine.
    #
    #   ceilings = Ceilings.new(db, Ceilings.read("files=200 megabytes=1000"))
    #   ceilings.room(show_id, "feeds")   # raises where there is no more
    class Ceilings
      # megabytes:: of the files as they were brought
      # pieces, rules, cues:: of one stage, one set of rules, the cue sheet: never more than their documents hold
      HELD = {"pieces" => Core::Stage::Document::MOST_PIECES, "rules" => Core::Gate::RuleSet::MOST_RULES,
              "cues" => Core::Cues::Settings::MOST}.freeze
      USUAL = {"feeds" => 40, "stages" => 40, "shelves" => 100, "emotes" => 20_000, "phrases" => 500, "files" => 3000, "megabytes" => 8000,
               "links" => 60, "invitations" => 60, "screens" => 200, "prompters" => 100, **HELD}.freeze
      CALLED = {"megabytes" => "MB of files", "links" => "prompter links", "pieces" => "pieces on a stage", "rules" => "rules in a set"}.freeze
      # From this share on a host is told how much there is of what there may be.
      NEARLY = 0.8
      # Of what is taken away and can be put back there may be so many times more.
      WITH_REMOVED = 4
      MB = 1_000_000
      LARGEST = 10**9

      # @return [Hash{String => Integer}] of each
      attr_reader :limits

      # @param given [String, nil] "feeds=60 files=500": those that are other than usual
      # @return [Hash{String => Integer}]
      # @raise [Bavard::Error] naming what is none
      def self.read(given)
        given.to_s.split.to_h do |one|
          name, number = one.match(/\A([a-z]+)=(\d{1,10})\z/)&.captures
          next [name, [number.to_i, HELD.fetch(name, LARGEST)].min] if USUAL.key?(name)

          raise Error, "Ceilings take a number for #{USUAL.keys.join(", ")}; “#{one[0, 40]}” is none of them."
        end
      end

      # @param db [Sequel::Database]
      # @param limits [Hash{String => Integer}] in the place of the usual ones
      def initialize(db, limits = {})
        @db = db
        @limits = USUAL.merge(limits).freeze
        @own = {}.freeze
      end

      # @param what [String] one of USUAL
      # @param more [Integer] how many are to come
      # @raise [Bavard::Error] in words for the host, where there is no room for them
      def room(show_id, what, more = 1)
        limit = most(show_id, what)
        refuse(what, limit) unless used(show_id, what) + more <= limit && all(show_id, what) + more <= limit * WITH_REMOVED
      end

      # For what a document holds. What there is may stay, and become less.
      #
      # @param what [String] one of HELD
      # @param before [Integer] how many it held
      # @param after [Integer] how many it is to hold
      # @raise [Bavard::Error] where that is more than before, and more than there may be
      def room_within(show_id, what, before, after)
        refuse(what, most(show_id, what)) if after > before && after > most(show_id, what)
      end

      # For a file that somebody brings.
      #
      # @param bytes [Integer]
      # @raise [Bavard::Error]
      def room_for_file(show_id, bytes)
        room(show_id, "files")
        room(show_id, "megabytes", bytes.fdiv(MB).ceil)
      end

      # @param there [Integer] how much there is
      # @return [String, nil] how much there is of what there may be, in words for the host, where that is nearly all
      def nearly(show_id, what, there = used(show_id, what))
        "#{written(there)} of the #{written(most(show_id, what))} #{called(what)} that a show may have here" if nearly?(show_id, there, what)
      end

      # @param there [Integer]
      # @return [Boolean] whether that is nearly all that there may be
      def nearly?(show_id, there, what) = there >= most(show_id, what) * NEARLY

      # @return [Integer] how many there may be of one thing
      def most(show_id, what) = of(show_id).fetch(what)

      # @return [Hash{String => Integer}] what this show may have
      def of(show_id) = limits.merge(own(show_id))

      # As they were when they were last read: nobody waits for the database here.
      #
      # @return [Hash{String => Integer}] what this show may have that is other than usual
      def own(show_id) = @own.fetch(show_id, {})

      # Reads what shows may have that is other than usual; to be called now and then, for it may be set elsewhere.
      def refresh
        @own = @db[:shows].exclude(ceilings: Sequel.pg_jsonb({})).select_hash(:id, :ceilings).transform_values(&:to_hash).freeze
        self
      end

      # @param given [Hash{String => Integer}] as {.read} gives them: all that is other than usual
      # @raise [Bavard::Gone]
      def set(show_id, given)
        changed = @db[:shows].where(id: show_id).update(ceilings: Sequel.pg_jsonb(given))
        raise Gone.new("There is no such show.", field: "show", value: show_id) if changed.zero?

        refresh
      end

      # @return [Integer] how many there are now
      def used(show_id, what)
        case what
        when "megabytes" then @db[:files].where(show_id:).sum(:bytes).to_i / MB
        when "emotes" then own_emotes(show_id)
        else present(show_id, what).count
        end
      end

      private

      TABLES = {"links" => :prompter_links}.freeze
      REMOVABLE = %w[feeds stages shelves].freeze
      private_constant :TABLES, :REMOVABLE

      def refuse(what, most)
        raise Error.new("A show may have #{written(most)} #{called(what)} here, and there is no room for more. " \
                        "Take some away, or ask whoever runs Bavard.", field: "ceiling", value: what)
      end

      def called(what) = CALLED.fetch(what, what)
      def written(number) = number.digits.each_slice(3).map(&:join).join("\u00a0").reverse

      def table(show_id, what) = @db[TABLES.fetch(what, what.to_sym)].where(show_id:)

      def present(show_id, what)
        return table(show_id, what) unless REMOVABLE.include?(what)

        table(show_id, what).where(removed_at_ms: nil).then { |rows| what == "shelves" ? rows.where(feed_id: nil) : rows }
      end

      # With what can be put back.
      def all(show_id, what) = REMOVABLE.include?(what) ? table(show_id, what).count : 0

      # Those of platforms have a bound of their own.
      def own_emotes(show_id)
        @db[:emotes].join(:shelves, id: :shelf_id).where(Sequel[:shelves][:show_id] => show_id, Sequel[:shelves][:feed_id] => nil).count
      end
    end
  end
end
