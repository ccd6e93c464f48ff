# frozen_string_literal: true

require "digest"
require "json"
require_relative "settings"

module Bavard
  module Core
    module Gate
      # Edits of a gate's sets of rules. Each takes the document as it is at that moment and gives another one: what somebody else
      # changed meanwhile, the brake above all, stays as they left it.
      module Sets
        # Somebody else changed the rules since the edit was begun.

        module_function

        # @return [String] of the set in force: another one whenever its name or a rule is another
        def version(document)
          Digest::SHA256.hexdigest(JSON.generate([document["in_force"], Settings.in_force(document)]))[0, 16]
        end

        # @param rules [Array<Hash>] as RuleSet.read gives them
        # @param from [String, nil] the version the edit was begun with
        # @raise [Bavard::Conflict]
        def keep(document, rules, from:)
          fresh(document, from)
          in_place(document, Settings.in_force(document).merge("rules" => rules))
        end

        # @param index [Integer] which set is to be in force
        # @param name [String] what whoever chose it saw there
        # @raise [Bavard::Conflict]
        def use(document, index, name)
          document["sets"].dig(index, "name") == name || stale("sets")
          document.merge("in_force" => index)
        end

        # Another set like the one in force; it is in force then.
        # @raise [Bavard::Error]
        def add(document, name, from:)
          fresh(document, from)
          sets = document["sets"]
          raise Error.new("There is room for #{Settings::MOST_SETS} sets.", field: "name") if sets.size >= Settings::MOST_SETS

          document.merge("sets" => sets + [Settings.in_force(document).merge("name" => RuleSet.name(name))], "in_force" => sets.size)
        end

        # @raise [Bavard::Error]
        def rename(document, name, from:)
          fresh(document, from)
          in_place(document, Settings.in_force(document).merge("name" => RuleSet.name(name)))
        end

        # @raise [Bavard::Error]
        def remove(document, from:)
          fresh(document, from)
          raise Error.new("One set of rules stays.", field: "set") if document["sets"].size == 1

          document.merge("sets" => document["sets"].reject.with_index { |_, at| at == document["in_force"] }, "in_force" => 0)
        end

        def fresh(document, from)
          from == version(document) || stale("rules")
        end

        def stale(field) = raise(Conflict.new("The rules were changed meanwhile.", field:))

        def in_place(document, set)
          document.merge("sets" => document["sets"].each_with_index.map { |old, at| at == document["in_force"] ? set : old })
        end
        private_class_method :fresh, :stale, :in_place
      end
    end
  end
end
