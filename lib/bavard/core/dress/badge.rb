# frozen_string_literal: true

module Bavard
  module Core
    module Dress
      # What is set about one kind of badge on one feed. shown:: whether it is drawn; theirs:: address of the platform's
      # picture, or nil; ours:: id of the host's own, which wins, or nil
      BadgeSetting = Struct.new(:feed_id, :kind, :shown, :theirs, :ours)

      # A badge as a platform names it, "subscriber/12": its kind and what is told besides.
      Badge = Struct.new(:kind, :detail) do
        # @return [String] such as "Subscriber, 12 months"
        def words
          return self.class.name_of(kind) unless detail
          if detail.match?(/\A\d{1,4}\z/) && self.class::MONTHS.include?(kind)
            return "#{self.class.name_of(kind)}, #{detail} month#{"s" unless detail == "1"}"
          end

          "#{self.class.name_of(kind)}, #{detail}"
        end
      end

      # See above.
      class Badge
        # Kinds that count months.
        MONTHS = %w[subscriber founder].freeze
        # Kinds we give ourselves, whatever the platform sends.
        FIRST = "first"
        LONGEST = 40
        # The kinds every platform has in some way, first those that say most.
        KNOWN = {
          "host" => "Host", "moderator" => "Moderator", "guest" => "Guest of honour", "subscriber" => "Subscriber", "supporter" => "Supporter",
          "bot" => "Bot", FIRST => "First line"
        }.freeze
        # Where there is no picture: a letter on one of these colours, always the same for the same kind.
        COLOURS = %w[#f3b634 #63c58a #5fb8d6 #e58fb0 #b79cf0 #ea9a85 #a8c46a #d9c8a0].freeze

        # The same few are read with every line; a platform that invents them without end fills nothing.
        MOST_READ = 1000
        @read = {}

        # @param text [String] as the platform writes it
        # @return [Badge]
        def self.read(text)
          return parse(text) if text.length > 2 * LONGEST

          @read[text] || begin
            @read = {} if @read.size >= MOST_READ
            @read[text.dup.freeze] = parse(text).freeze
          end
        end

        def self.parse(text)
          kind, detail = text.split("/", 2)
          kind = kind.to_s.downcase.gsub(/[^\p{L}\p{N}]+/, "_").gsub(/\A_+|_+\z/, "")[0, LONGEST]
          new(kind.empty? ? "badge" : kind, detail.to_s.empty? ? nil : detail[0, LONGEST])
        end

        private_class_method :parse

        # @return [String] "Early bird" for "early_bird"
        def self.name_of(kind)
          KNOWN[kind] || kind.tr("_", " ").then { |words| words[0].upcase + words[1..] }
        end

        # @return [Array(String, String)] a letter, and a colour to draw it on
        def self.drawn(kind)
          [name_of(kind)[0], COLOURS[KNOWN.keys.index(kind) || (kind.sum % COLOURS.size)]]
        end
      end
    end
  end
end
