# frozen_string_literal: true

require "csv"
require "json"
require_relative "../../error"

module Bavard
  module Core
    module Gate
      # Lists of words and names: the house's own, and those that hosts bring as text, CSV or JSON.
      module Lists
        FOLDER = File.expand_path("lists", __dir__)
        # Mild lists to begin with, by language.
        STARTERS = %w[english german french spanish].freeze
        FORMATS = %w[txt csv json].freeze

        module_function

        # @return [Array<String>] names of bots that the house knows
        def bots = @bots ||= file("bots")

        # @param name [String] one of STARTERS
        # @return [Array<String>]
        def starter(name) = (@starters ||= {})[name] ||= file(name)

        # @param text [String] one a line; empty lines and those beginning with "#" do not count
        # @return [Array<String>] without those that are there twice
        # @raise [Bavard::Error] where there are too many
        def lines(text, most:, field:)
          found = text.each_line(chomp: true).map(&:strip).reject { |line| line.empty? || line.start_with?("# ") }.uniq
          room(found, most, nil, field)
          found
        end

        # @raise [Bavard::Error]
        def room(list, most, longest, field)
          raise Error.new("There is room for #{most} #{field}; these are #{list.size}.", field:, value: list.size) if list.size > most

          long = longest && list.find { |entry| entry.length > longest }
          raise Error.new("“#{long[0, 24]}…” is longer than #{longest} characters.", field:, value: long) if long
        end

        # @param given [String] a list as a file holds it: JSON array, CSV (first column), or text
        # @return [String] one a line
        # @raise [Bavard::Error]
        def read(given, field:, most:)
          given = given.dup.force_encoding(Encoding::UTF_8).scrub("").delete_prefix("\uFEFF")
          entries = given.lstrip.start_with?("[") ? from_json(given) : from_rows(given)
          room(entries, most, nil, field)
          entries.map { |entry| entry.gsub(/[\r\n]+/, " ").strip }.reject(&:empty?).uniq.join("\n")
        rescue JSON::ParserError, CSV::MalformedCSVError
          raise Error.new("This list cannot be read. It is text with one entry a line, CSV, or a JSON array of words.", field:)
        end

        # @param format [String] one of FORMATS
        # @return [String]
        def write(entries, format)
          case format
          when "json" then JSON.pretty_generate(entries)
          when "csv" then CSV.generate { |csv| entries.each { |entry| csv << [entry] } }
          else entries.map { |entry| "#{entry}\n" }.join
          end
        end

        def file(name) = lines(File.read(File.join(FOLDER, "#{name}.txt"), encoding: Encoding::UTF_8), most: Float::INFINITY, field: name)

        def from_json(given)
          list = JSON.parse(given, max_nesting: 3)
          list.map { |entry| entry.is_a?(Hash) ? entry.values.first.to_s : entry.to_s }
        end

        def from_rows(given)
          rows = given.each_line(chomp: true).to_a
          return rows unless rows.any? { |row| row.start_with?('"') } || rows.all? { |row| row.empty? || row.include?(",") }

          CSV.parse(given).map { |row| row.first.to_s }
        end
        private_class_method :file, :from_json, :from_rows
      end
    end
  end
end
