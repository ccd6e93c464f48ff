# frozen_string_literal: true

Dir[File.join(__dir__, "rules/*.rb")].each { |file| require_relative file }

module Bavard
  module Core
    module Gate
      # All kinds of rules there are.
      module Rules
        KINDS = [KnownBots, CommandLines, PeopleLeftOut, StoppedWords, Links, Repeats, Floods, Shouting, WhoMayBeShown, AskedFor, Scripts]
          .to_h { |kind| [kind::KEY, kind] }.freeze

        # What else keeps lines off.
        BESIDE = {"brake" => "the brake", "unseen" => "nothing to see in it"}.freeze

        module_function

        # @return [Class] a RuleKind
        # @raise [Bavard::Error]
        def kind(key)
          KINDS[key] || raise(Error.new("There is no kind of rule called “#{key.to_s[0, 40]}”.", field: "kind", value: key))
        end

        # @param id [String] of a rule, such as "links2"
        # @return [String] how it is called
        def label(id)
          return BESIDE.fetch(id) if BESIDE.key?(id)

          KINDS[id.to_s.sub(/(?<!\d)\d+\z/, "")]&.then { |kind| kind::LABEL } || id.to_s
        end
      end
    end
  end
end
