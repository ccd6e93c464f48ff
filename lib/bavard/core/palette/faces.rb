# frozen_string_literal: true

module Bavard
  module Core
    module Palette
      # The faces text can be set in.
      module Faces
        # Family and the weights it has. All are shipped.
        SHIPPED = {
          "Atkinson Hyperlegible Next" => 200..800,
          "Bricolage Grotesque" => 200..800,
          "Archivo" => 100..900,
          "Fraunces" => 100..900,
          "Bitter" => 100..900,
          "Playpen Sans" => 100..800,
          "Courier Prime" => 400..400,
          "Anton" => 400..400
        }.freeze
        # The host's own file, by the hash of what is in it; and one of the broadcast computer's, by its exact name.
        OWN = /\Afile:[0-9a-f]{32}\z/
        INSTALLED = /\Ainstalled:[^"'\\;{}<>\p{Cntrl}]{1,60}\z/
        # For what a face does not have.
        FALLBACK = '"Noto Sans", "Noto Sans Arabic", "Noto Color Emoji", sans-serif'

        module_function

        # @return [Boolean]
        def known?(name)
          SHIPPED.key?(name) || name.match?(OWN) || name.match?(INSTALLED)
        end

        # @return [Integer] the nearest weight the face has
        def weight(name, wanted)
          SHIPPED.key?(name) ? wanted.clamp(SHIPPED[name]) : wanted
        end

        # @return [String] as CSS names it, with what stands in for missing characters
        def css(name)
          %("#{family(name)}", #{FALLBACK})
        end

        # @return [String] the family a page asks for
        def family(name)
          name.match?(OWN) ? "own-#{name[5..]}" : name.delete_prefix("installed:")
        end
      end
    end
  end
end
