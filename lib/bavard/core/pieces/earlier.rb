# frozen_string_literal: true

module Bavard
  module Core
    module Pieces
      # What documents of earlier versions call otherwise, in the words of today.
      module Earlier
        RENAMED = {"face" => "text_face", "size_px" => "text_size_px", "weight" => "text_weight",
                   "plate_rule_colour" => "plate_pattern_colour"}.freeze
        RULED = "plate_ruled"

        module_function

        # @param values [Hash] of a piece or a look, as they were kept
        # @return [Hash]
        def values(values)
          renamed = values.except(RULED).transform_keys { |name| RENAMED.fetch(name, name) }
          values[RULED] == true ? renamed.merge("plate_pattern" => "ruled", "plate_pattern_opacity" => 100) : renamed
        end
      end
    end
  end
end
