# frozen_string_literal: true

require_relative "../fields/property"

module Bavard
  module Core
    module Look
      # Makes the properties of one part of a piece: each under the part's own name, with the part's own defaults.
      #
      #   PartProperties.new("time", "time", {"size" => 76}).number("size", "size", 30..300, 100, unit: "%")
      #   # => the Property "time_size", "time size", 76 as it comes
      PartProperties = Struct.new(:part, :label, :defaults) do
        def number(name, words, range, default, **more)
          Fields::Property.number(*named(name, words), range, defaults.fetch(name, default), **more)
        end

        def percent(name, words, range, default) = number(name, words, range, default, unit: "%")
        def colour(name, words, default) = Fields::Property.colour(*named(name, words), defaults.fetch(name, default))
        def switch(name, words) = Fields::Property.switch(*named(name, words), defaults.fetch(name, false))
        def choice(name, words, choices) = Fields::Property.choice(*named(name, words), choices, defaults.fetch(name, choices.first))
        def face(name, words, default, **more) = Fields::Property.face(*named(name, words), defaults.fetch(name, default), **more)

        private

        def named(name, words) = ["#{part}_#{name}", "#{label} #{words}"]
      end
    end
  end
end
