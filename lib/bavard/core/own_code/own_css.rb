# frozen_string_literal: true

require "crass"
require_relative "own_selector"
require_relative "own_value"

module Bavard
  module Core
    module OwnCode
      # CSS a host writes for a piece: read, limited to what is safe, and bound to that piece.
      #
      #   own = OwnCss.read(".name { color: red; background: url(x) }", "chat1")
      #   own.css      # => "[data-piece=\"chat1\"] .name{color:red}"
      #   own.errors   # => [[1, "“url” is not used here: nothing is loaded from elsewhere."]]
      class OwnCss
        LONGEST = 20_000
        STEP = /(?:from|to|\d{1,3}(?:\.\d+)?%)/
        STEPS = /\A#{STEP}(?:\s*,\s*#{STEP})*\z/
        # Of the piece itself these stay as the stage has them: where it is, how large, and all that paints around its box or moves it.
        BOX = /\A(?:position|inset|top|left|right|bottom|width|height|min-|max-|margin|transform|translate|scale|rotate|display|
          overflow|contain|float|box-|outline|filter|animation|transition|z-index|order\z|flex|grid|padding|border(?!.*radius)|align-self|
          justify-self|place-|aspect-ratio|isolation|perspective)/x
        REMEMBERED = 64
        @known = {}

        # Remembers what it read lately: a piece that is dragged has the same CSS each time.
        #
        # @return [OwnCss] with css and errors
        def self.read(text, piece_id)
          @known.shift if @known.size > REMEMBERED
          @known[[text, piece_id]] ||= new(text.to_s[0, LONGEST], piece_id)
        end

        # css:: safe, and for this piece alone; errors:: line and words each
        attr_reader :css, :errors

        def initialize(text, piece_id)
          @text = text
          @scope = %([data-piece="#{piece_id}"])
          @prefix = "own-#{piece_id}-"
          @errors = []
          @moves = text.scan(/@keyframes\s+([A-Za-z][\w-]{0,40})/).flatten
          @css = Crass.parse(text).filter_map { |node| top(node) }.join("\n")
          @errors.sort_by!(&:first)
        end

        private

        def top(node)
          case node[:node]
          when :style_rule then rule(node)
          when :at_rule then at_rule(node)
          when :error then wrong(node, "This cannot be read.")
          end
        end

        def rule(node)
          selectors = OwnSelector.split(node[:selector][:value])
          trouble = selectors.filter_map { |one| OwnSelector.trouble(one) }.first
          return wrong(node[:selector], "“#{trouble[0, 60]}” cannot stand in a selector; the names are in docs/style-names.md.") if trouble

          said = declarations(node[:children], selectors.any? { |one| OwnSelector.root?(one) })
          "#{selectors.map { |one| OwnSelector.bound(one, @scope) }.join(",")}{#{said.join(";")}}" if said.any?
        end

        # Keyframes alone, under a name that is this piece's own.
        def at_rule(node)
          name = node[:prelude].find { |token| token[:node] == :ident }
          ours = node[:name] == "keyframes" && name && node[:block]
          return wrong(node, "“@#{node[:name]}” is not used here, only “@keyframes”.") unless ours

          frames = Crass::Parser.parse_rules(node[:block].map { |token| token[:raw] || token[:tokens]&.map { |one| one[:raw] }&.join }.join)
          said = frames.select { |frame| frame[:node] == :style_rule }.map { |frame| keyframe(frame, node) }
          "@keyframes #{@prefix}#{name[:value]}{#{said.join}}"
        end

        def keyframe(frame, at)
          step = frame[:selector][:value].strip
          return wrong(at, "“#{step}” is no step of keyframes.").to_s unless step.match?(STEPS)

          "#{step}{#{declarations(frame[:children], false).join(";")}}"
        end

        def declarations(children, whole)
          children.select { |child| child[:node] == :property }.filter_map { |child| property(child, whole) }
        end

        def property(child, whole)
          name = child[:name].downcase
          return wrong(child, "“#{name}” is not used here.") unless OwnValue.property?(name)
          return wrong(child, "“#{name}” of the piece itself is set on the stage.") if whole && name.match?(BOX)

          trouble = OwnValue.trouble(child[:children])
          return wrong(child, trouble) if trouble

          "#{name}:#{moves(name, child[:value])}#{" !important" if child[:important]}"
        end

        # Keyframes of this piece by their own name.
        def moves(name, value)
          return value unless name.start_with?("animation")

          @moves.reduce(value) { |text, move| text.gsub(/(?<![\w-])#{Regexp.escape(move)}(?![\w-])/, "#{@prefix}#{move}") }
        end

        # @return [nil]
        def wrong(node, words)
          position = node && (node[:pos] || node[:tokens]&.first&.[](:pos))
          @errors << [position ? @text[0, position].count("\n") + 1 : 1, words]
          nil
        end
      end
    end
  end
end
