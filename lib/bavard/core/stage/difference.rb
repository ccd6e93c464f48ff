# frozen_string_literal: true

require_relative "document"

module Bavard
  module Core
    module Stage
      # What is different between two documents of a stage, in words; what is edited but not on air.
      #
      #   Difference.between(on_air, draft)   # => ["Chat: text size 25 px → 30 px", "Chat: moved"]
      module Difference
        module_function

        # @param before [Hash, nil] nil where nothing was there yet
        # @param after [Hash]
        # @return [Array<String>]
        def between(before, after)
          before ||= Document.empty(width: after["width"], height: after["height"], frame_rate: after["frame_rate"])
          sizes(before, after) + gone_and_new(before, after) + changed(before, after)
        end

        def sizes(before, after)
          Document::SIZE.values.reject { |property| before[property.name] == after[property.name] }
            .map { |property| "Stage: #{step(property, before, after)}" }
        end

        def gone_and_new(before, after)
          old = before["pieces"].map { |piece| piece["id"] }
          new = after["pieces"].map { |piece| piece["id"] }
          before["pieces"].reject { |piece| new.include?(piece["id"]) }.map { |piece| "#{label(piece)}: taken off" } +
            after["pieces"].reject { |piece| old.include?(piece["id"]) }.map { |piece| "#{label(piece)}: new" }
        end

        def changed(before, after)
          after["pieces"].flat_map do |piece|
            old = Document.piece(before, piece["id"])
            old ? piece_changes(old, piece).map { |words| "#{label(piece)}: #{words}" } : []
          end
        end

        def piece_changes(old, piece)
          kind = Document.kind(piece["kind"])
          different = kind::PROPERTIES.values.reject { |property| old[property.name] == piece[property.name] }
          places, others = different.partition { |property| kind::PLACE.include?(property) }
          words = others.map { |property| step(property, old, piece) }
          places.empty? ? words : words << place(places)
        end

        def place(properties)
          names = properties.map(&:name)
          moved = names.intersect?(%w[x y])
          sized = names.intersect?(%w[width height])
          return "moved and sized" if moved && sized

          moved ? "moved" : "sized"
        end

        def step(property, old, new)
          "#{property.label} #{property.write(old[property.name])} → #{property.write(new[property.name])}"
        end

        def label(piece)
          Document.kind(piece["kind"])::LABEL
        end

        private_class_method :sizes, :gone_and_new, :changed, :piece_changes, :place, :step, :label
      end
    end
  end
end
