# frozen_string_literal: true

require_relative "../../http/assets"

module Bavard
  module Web
    # Lucide's icons, drawn from the sprite that ships with us.
    module Icon
      SPRITE = Assets.at("vendor/lucide/icons.svg").freeze

      module_function

      # @param label [String, nil] for an icon that stands without a word
      # @return [String] markup
      def svg(name, label: nil)
        said = label ? %(role="img" aria-label="#{label}") : %(aria-hidden="true")
        %(<svg class="icon-drawn" viewBox="0 0 24 24" #{said}><use href="#{SPRITE}##{name}"></use></svg>)
      end
    end
  end
end
