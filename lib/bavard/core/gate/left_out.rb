# frozen_string_literal: true

require_relative "words/fold"

module Bavard
  module Core
    module Gate
      # The people who are left out: shown nowhere on the picture, though not banned anywhere.
      class LeftOut
        MOST = 50_000
        # name:: login or shown name; feed_id:: where it counts, or nil: on every feed; until_ms:: Unix milliseconds, or nil: until
        # taken back
        Entry = Struct.new(:name, :feed_id, :until_ms) do
          # @param person [Chat::Person]
          def is?(person)
            @key ||= LeftOut.key(name)
            (feed_id.nil? || feed_id == person.feed_id) && [person.login, person.display_name].any? { |one| LeftOut.key(one) == @key }
          end
        end
        # Characters that can hardly be told apart in a name.
        MEETS_FROM = "il1|0"
        MEETS_AT = "llllo"

        # @return [String] the same for names that look the same, in any case
        def self.key(name)
          Words::Fold.text(name.strip.delete_prefix("@").tr(":", " ")).tr(MEETS_FROM, MEETS_AT).gsub("rn", "m").gsub(/\s+/, " ").strip
        end

        # @param entries [Array<Entry>]
        def initialize(entries = [])
          @changes = 0
          @by_key = {}
          @found = {}
          entries.each { |entry| add(entry) }
        end

        # @return [Integer] another one whenever somebody else is left out
        attr_reader :changes

        # @param entry [Entry]
        def add(entry)
          key = LeftOut.key(entry.name)
          return if key.empty?

          @found.clear
          @changes += 1
          @by_key[key] = (@by_key[key] || []).reject { |other| other.feed_id == entry.feed_id } << entry
        end

        # @return [Entry, nil] who was left out
        def take_back(name, feed_id = nil)
          key = LeftOut.key(name)
          @found.clear
          @changes += 1
          gone, rest = (@by_key[key] || []).partition { |entry| entry.feed_id == feed_id }
          rest.empty? ? @by_key.delete(key) : @by_key[key] = rest
          gone.first
        end

        # @param person [Chat::Person] of no feed: left out anywhere counts
        # @return [Entry, nil] that counts for this person now
        def find(person, at_ms)
          return if @by_key.empty?

          entries = entries_of(person.login) || (person.display_name != person.login && entries_of(person.display_name)) || return
          entries.find { |entry| on?(entry.feed_id, person.feed_id) && (entry.until_ms.nil? || at_ms < entry.until_ms) }
        end

        def size = @by_key.size
        def none? = @by_key.empty?
        def to_a = @by_key.values.flatten

        private

        def on?(feed_id, theirs) = feed_id.nil? || theirs.nil? || feed_id == theirs

        # Looking a name up is asked for each line, and mostly for the same people.
        def entries_of(name)
          known = @found[name]
          return known unless known.nil?

          @found.clear if @found.size > MOST
          @found[name] = @by_key[LeftOut.key(name)] || false
        end
      end
    end
  end
end
