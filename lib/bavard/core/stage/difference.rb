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
          before ||= Document.empty(**after.slice("width", "height", "frame_rate", "house").transform_keys(&:to_sym))
          return [] if before.equal?(after)

          sizes(before,
            after) + house(before, after) + outfit(before, after) + gone_and_new(before, after) + changed(before, after) + order(before, after)
        end

        def sizes(before, after)
          Document::SIZE.values.reject { |property| before[property.name] == after[property.name] }
            .map { |property| "Stage: #{step(property, before, after)}" }
        end

        def house(before, after)
          return [] if before["house"] == after["house"]

          after["house"].keys.flat_map do |sort|
            old, new = [before, after].map { |document| document["house"][sort] }
            (old.keys | new.keys).reject { |key| old[key] == new[key] }.map { |key| house_step(old[key], new[key]) }
          end
        end

        # What is worn is in the pieces; this is what those wear that come later.
        def outfit(before, after)
          old, new = [before, after].map { |document| document["outfit"].to_s }
          return [] if old == new

          new.empty? ? ["Stage: no outfit for what comes later"] : ["Stage: dressed as #{Pieces::Outfit.find(new).name}"]
        end

        def house_step(old, new)
          return "The show’s #{old["name"]}: taken away" unless new
          return "The show’s #{new["name"]}: new" unless old

          "The show’s #{new["name"]}: #{old["value"]} → #{new["value"]}"
        end

        def gone_and_new(before, after)
          old, new = [before, after].map { |document| document["pieces"].to_h { |piece| [piece["id"], true] } }
          before["pieces"].reject { |piece| new[piece["id"]] }.map { |piece| "#{Pieces.label(piece)}: taken off" } +
            after["pieces"].reject { |piece| old[piece["id"]] }.map { |piece| "#{Pieces.label(piece)}: new" }
        end

        def changed(before, after)
          known = before["pieces"].to_h { |piece| [piece["id"], piece] }
          after["pieces"].flat_map do |piece|
            old = known[piece["id"]]
            next [] if old.nil? || old.equal?(piece) || old == piece

            piece_changes(old, piece).map { |words| "#{Pieces.label(piece)}: #{words}" }
          end
        end

        def piece_changes(old, piece)
          kind = Pieces.kind(piece["kind"])
          different = kind.properties.values.reject { |property| old[property.name] == piece[property.name] }
          places, others = different.partition { |property| Pieces::PieceKind::PLACE.include?(property) }
          words = others.map { |property| step(property, old, piece) }
          places.empty? ? words : words << place(places)
        end

        def order(before, after)
          both = [before, after].map { |document| document["pieces"].map { |piece| piece["id"] } }
          common = both.map { |ids| ids & both[0] & both[1] }
          common[0] == common[1] ? [] : ["Pieces: another order from front to back"]
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

        private_class_method :sizes, :house, :outfit, :house_step, :gone_and_new, :changed, :piece_changes, :order, :place, :step
      end
    end
  end
end
