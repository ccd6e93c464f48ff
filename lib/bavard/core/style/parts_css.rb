# frozen_string_literal: true

require_relative "../look/type_settings"
require_relative "part_plates"
require_relative "words_css"

module Bavard
  module Core
    module Style
      # What pieces are drawn with whose words have a name set apart.
      module PartsCss
        module_function

        # @param piece [Hash] with the show's colours and faces in place of their names
        # @return [Hash{String => String}]
        def from(piece) = WordsCss.from(piece).merge(Look::TypeSettings.css("name", piece), PartPlates.css(%w[name], piece))

        # @return [Hash] for data attributes
        def choices(piece) = WordsCss.choices(piece)
      end
    end
  end
end
