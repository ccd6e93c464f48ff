# frozen_string_literal: true

require_relative "../look/plate_settings"

module Bavard
  module Core
    module Style
      # The grounds that parts of a piece have of their own, over the piece's.
      module PartPlates
        module_function

        # @param parts [Array<String>]
        # @param piece [Hash] as it is drawn
        # @return [Hash{String => String}] nothing of those of which nothing is seen
        def css(parts, piece) = parts.map { |part| of("#{part}_plate", piece) }.reduce({}, :merge)

        def of(plate, piece)
          seen = piece["#{plate}_opacity"].positive? || piece["#{plate}_gradient"] != "none" || piece["#{plate}_border"].positive?
          seen ? Look::PlateSettings.css(plate, piece).transform_keys { |name| name.tr("_", "-") } : {}
        end

        private_class_method :of
      end
    end
  end
end
