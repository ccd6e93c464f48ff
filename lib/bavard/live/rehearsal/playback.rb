# frozen_string_literal: true

require "json"
require "time"
require_relative "../../core/amount"
require_relative "../../core/chat/line"
require_relative "../../core/chat/placed"
require_relative "../../core/intake"
require_relative "../../error"
require_relative "script"

module Bavard
  module Live
    # What really happened once, played into a draft again: an export of the log as JSON Lines, at its own pace or a
    # chosen one.
    class Playback
      SPEEDS = (0.1..100.0)
      MOST_LINES = 50_000
      LARGEST_BYTES = 64 * 1024 * 1024

      # @param text [String] JSON Lines
      # @param speed [Float] 1.0: as it was
      # @return [Script]
      # @raise [Bavard::Error]
      def self.script(text, speed) = Script.from_log(read(text), speed.clamp(SPEEDS))

      # What a show's own log holds, as a script.
      #
      # @param entries [Array<Store::Lines::Entry>] oldest first
      # @return [Script, nil] nil where there is nothing in it
      def self.of_entries(entries)
        lines = entries.map(&:line).reject(&:event?)
        return if lines.empty?

        first = lines.map(&:shown_at_ms).min
        Script.from_log(lines.sort_by(&:shown_at_ms).map { |line| [line.shown_at_ms - first, said_again(line)] }, 1.0)
      end

      def self.said_again(line)
        person = line.person
        said = Core::Said.new(person.login, person.display_name, person.colour, person.badges, line.text, line.kind == :action, false)
        said.emotes = Core::Chat::Placed.new(:code_points, line.placed) if line.placed.any?
        more = {reply: line.reply, first_time: line.first_time, paid: line.paid, avatar: person.avatar, badge_pictures: person.badge_pictures}
        more.each { |name, value| said[name] = value }
        said
      end

      # @param text [String] JSON Lines
      # @return [Array<Array(Integer, Core::Said)>] when each line was said, from the first on, and what
      # @raise [Bavard::Error] naming the line that cannot be read
      def self.read(text)
        raise Error.new("That is more than #{LARGEST_BYTES / 1024 / 1024} MB.", field: "file") if text.bytesize > LARGEST_BYTES

        lines = []
        text.dup.force_encoding(Encoding::UTF_8).scrub.each_line.with_index(1) do |line, number|
          next if line.strip.empty?

          lines << said(line, number)
          raise Error.new("There are more than #{MOST_LINES} lines in it.", field: "file") if lines.size > MOST_LINES
        end
        lines = lines.compact.sort_by(&:first)
        raise Error.new("There is no line in it that could be played.", field: "file") if lines.empty?

        lines.map { |at_ms, said| [at_ms - lines.first.first, said] }
      end

      # Events are not drawn as lines, and stay out.
      def self.said(line, number)
        given = JSON.parse(line, max_nesting: 20)
        return unless Core::Chat::Line::KINDS.include?(given["kind"].to_s.to_sym)

        [(Time.iso8601(given.fetch("at")).to_r * 1000).to_i, more(who(given.fetch("person"), given), given)]
      rescue JSON::ParserError, KeyError, ArgumentError, TypeError, NoMethodError
        raise Error.new("Line #{number} is not one of an export of the log.", field: "file")
      end

      def self.who(person, given)
        Core::Said.new(person.fetch("login").to_s, person["name"]&.to_s, Core::Palette::Colour.normal(person["colour"]),
          Array(person["badges"]).map(&:to_s), given.fetch("text").to_s, given["kind"] == "action", false)
      end

      def self.more(said, given)
        ranges = given.fetch("emotes", []).select { |range| range.is_a?(Array) && range.size == 3 }
        said.emotes = Core::Chat::Placed.new(:code_points, ranges) if ranges.any?
        said.reply = Core::Reply.new(*given["reply_to"].values_at("id", "name", "text")) if given["reply_to"]
        said.first_time = given["first"] == true
        said.paid = Core::Amount.read(given["paid"])
        said.avatar = given["person"]["avatar"]
        said
      end
      private_class_method :said, :said_again, :who, :more
    end
  end
end
