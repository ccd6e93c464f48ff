# frozen_string_literal: true

module Bavard
  module Core
    module OwnCode
      # Which properties own CSS may set, and what may stand in their values: nothing that loads, scripts or reaches out.
      module OwnValue
        PROPERTIES = %w[align-content align-items align-self aspect-ratio background background-blend-mode background-clip background-color
          background-image background-origin background-position background-repeat background-size backdrop-filter box-decoration-break box-shadow
          box-sizing clip-path color column-gap display filter flex flex-basis flex-direction flex-flow flex-grow flex-shrink flex-wrap gap
          grid-area grid-column grid-row grid-template-columns grid-template-rows height inset bottom left right top hyphens isolation
          justify-content justify-items justify-self letter-spacing line-height max-height max-width min-height min-width mix-blend-mode opacity
          order overflow overflow-wrap perspective place-content place-items position rotate row-gap scale tab-size transform transform-origin
          transform-style translate vertical-align visibility white-space width word-break word-spacing z-index content
          -webkit-text-stroke -webkit-text-stroke-color -webkit-text-stroke-width paint-order -webkit-background-clip].freeze
        FAMILIES = /\A(?:animation|border|font|margin|outline|padding|text|transition)(?:-[a-z-]+)?\z/
        OWN = /\A--[a-z][a-z0-9-]{0,40}\z/
        FUNCTIONS = %w[rgb rgba hsl hsla hwb lab lch oklab oklch color-mix var calc min max clamp linear-gradient radial-gradient conic-gradient
          repeating-linear-gradient repeating-radial-gradient repeating-conic-gradient translate translatex translatey translatez translate3d scale
          scalex scaley scalez rotate rotatex rotatey rotatez skew skewx skewy matrix matrix3d perspective blur brightness contrast drop-shadow
          grayscale hue-rotate invert opacity saturate sepia cubic-bezier steps inset polygon circle ellipse minmax repeat fit-content].freeze
        POSITIONS = %w[fixed sticky].freeze

        module_function

        # @return [Boolean]
        def property?(name)
          PROPERTIES.include?(name) || name.match?(FAMILIES) || name.match?(OWN)
        end

        # @param tokens [Array<Hash>] of a value, as Crass has them
        # @return [String, nil] what is wrong with it, in words
        def trouble(tokens)
          tokens.each do |token|
            words = case token[:node]
                    when :url, :bad_url then loading("url")
                    when :function then function(token)
                    when :ident then "“#{token[:value]}” is not used here." if POSITIONS.include?(token[:value].downcase)
                    when :bad_string, :at_keyword, :"{", :"}" then "This value cannot be read."
                    when :simple_block then trouble(token[:value])
            end
            return words if words
          end
          nil
        end

        def function(token)
          name = token[:name].downcase
          return loading(name) if name == "url"
          return "“#{token[:name]}()” is not used here." unless FUNCTIONS.include?(name)

          trouble(token[:value].is_a?(Array) ? token[:value] : token[:tokens].drop(1))
        end

        def loading(name) = "“#{name}” is not used here: nothing is loaded from elsewhere."
        private_class_method :function, :loading
      end
    end
  end
end
