# frozen_string_literal: true

require "json"
require_relative "../core/chat/line"
require_relative "../core/intake"

module Bavard
  module Live
    # Made-up traffic for one stage's draft: the lines of a script at its pace, over and over until it is stopped.
    class Rehearsal
      # lines:: [login, text] each
      Script = Struct.new(:key, :name, :about, :per_minute, :lines)
      # The voices of a script are told apart like those of three platforms.
      MARKS = [["circle", "#5fb8d6"], ["diamond", "#e58fb0"], ["triangle", "#63c58a"]].freeze

      # @param folder [String] of script files; a script may take its lines "from" another file beside the folder
      # @param people [Array<Hash>] login, name, colour
      # @return [Hash{String => Script}]
      def self.scripts(folder)
        Dir[File.join(folder, "*.json")].reverse.to_h do |file|
          given = JSON.parse(File.read(file))
          lines = given["lines"] || JSON.parse(File.read(File.join(folder, "..", given.fetch("from"))))
          key = File.basename(file, ".json")
          [key, Script.new(key, given.fetch("name"), given.fetch("about"), given.fetch("per_minute"), lines)]
        end
      end

      attr_reader :script, :due_ms

      # @param script [Script]
      # @param people [Hash{String => Hash}] by login: name and colour
      def initialize(script, people, now_ms)
        @script = script
        @people = people
        @next = 0
        @due_ms = now_ms
      end

      # @return [Core::Chat::Line, nil] the next line, once it is due
      def line(now_ms, ids)
        return if now_ms < @due_ms

        login, text = script.lines[@next % script.lines.size]
        @next += 1
        @due_ms = [@due_ms + (60_000 / script.per_minute), now_ms].max
        Core::Chat::Line.from(intake(login, text, now_ms), id: ids.next(now_ms), origin: :rehearsal)
      end

      # @return [Array(String, String)] the mark of whoever says it
      def self.mark(login)
        MARKS[login.sum % MARKS.size]
      end

      private

      def intake(login, text, now_ms)
        person = @people.fetch(login, {})
        colour = person["colour"].to_s.empty? ? nil : person["colour"]
        Core::Intake.new(:line, nil, nil, nil, now_ms, Core::Said.new(login, person["name"], colour, [], text, false, false))
      end
    end
  end
end
