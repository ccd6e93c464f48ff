# frozen_string_literal: true

require "json"
require_relative "../../core/amount"
require_relative "../../core/intake"

module Bavard
  module Live
    # Traffic to rehearse with: what is said and what happens, each at its time. Made up and read from a file, or taken from
    # a log. The same at the same moment, however often it is played.
    class Script
      # The voices of a script are told apart like those of three platforms.
      MARKS = [["circle", "#5fb8d6"], ["diamond", "#e58fb0"], ["triangle", "#63c58a"]].freeze
      MINUTE_MS = 60_000
      RATES = (1..1200)
      LOG = "playback"

      # at_ms:: from the beginning; what:: a Core::Said or Core::Happened
      Step = Struct.new(:at_ms, :what)

      # @param folder [String] of script files; a script may take its lines "from" another file beside the folder
      # @param people [Hash{String => Hash}] by login: name and colour
      # @return [Hash{String => Script}] in the order they are numbered in
      def self.all(folder, people)
        Dir[File.join(folder, "*.json")].map { |file| [File.basename(file, ".json"), JSON.parse(File.read(file)), file] }
          .sort_by { |key, given, _| [given.fetch("order", 99), key] }
          .to_h { |key, given, file| [key, from_file(key, given, file, people)] }
      end

      def self.from_file(key, given, file, people)
        lines = given["lines"] || JSON.parse(File.read(File.join(File.dirname(file), "..", given.fetch("from"))))
        rates = given["rates"] || [[0, given.fetch("per_minute")]]
        at_ms = 0.0
        steps = lines.each_with_index.map do |line, index|
          step = Step.new(at_ms.round, what(line, people))
          at_ms += MINUTE_MS.fdiv(rates.reverse.find { |from, _| from <= index }.last)
          step
        end
        new(key, given.fetch("name"), given.fetch("about"), steps, at_ms.round)
      end

      # @param lines [Array<Array(Integer, Core::Said)>] as Playback reads them
      def self.from_log(lines, speed)
        steps = lines.map { |at_ms, said| Step.new((at_ms / speed).round, said) }
        new(LOG, "A log", "What really happened once, in this draft alone.", steps, steps.last.at_ms + 1, once: true)
      end

      def self.what((login, text, more), people)
        person = people.fetch(login, {})
        colour = person["colour"].to_s.empty? ? nil : person["colour"]
        more ||= {}
        said = Core::Said.new(login, person["name"], colour, Array(more["badges"]), text, more["action"] == true, false)
        said.first_time = more["first"] == true
        said.paid = Core::Amount.read(more["paid"]) if more["paid"]
        more["event"] ? Core::Happened.new(more["event"].to_sym, said, more["number"]) : said
      end
      private_class_method :from_file, :what

      attr_reader :key, :name, :about, :steps, :length_ms

      # @param once [Boolean] whether it ends, rather than begin anew
      def initialize(key, name, about, steps, length_ms, once: false)
        @key = key
        @name = name
        @about = about
        @steps = steps
        @length_ms = length_ms
        @once = once
      end

      def once? = @once

      # @param per_minute [Integer, nil] at an even pace in the place of its own
      # @return [Integer] how long it takes
      def length_at(per_minute) = per_minute ? (steps.size * MINUTE_MS.fdiv(per_minute)).round : length_ms

      # @return [Integer] when a step comes
      def at(index, per_minute) = per_minute ? (index * MINUTE_MS.fdiv(per_minute)).round : steps[index].at_ms

      # @return [Integer] lines a minute, over all of it
      def per_minute = (steps.size * MINUTE_MS.fdiv([length_ms, 1].max)).round

      # @return [Array<Array(Integer, Integer, Integer)>] how many come in each stretch, by their mark
      def bars(count)
        bars = Array.new(count) { [0, 0, 0] }
        steps.each { |step| bars[(step.at_ms * count / [length_ms, 1].max).clamp(0, count - 1)][self.class.voice(login(step))] += 1 }
        bars
      end

      # @return [Integer] which of MARKS a person's is
      def self.voice(login) = login.sum % MARKS.size

      private

      def login(step) = (step.what.respond_to?(:said) ? step.what.said : step.what).login
    end
  end
end
