# frozen_string_literal: true

module Bavard
  module Web
    # What a page's field needs to know of a property: its choices with the words they read as. Scripts want pairs, and only pairs.
    module FieldWords
      module_function

      # @param property [Core::Fields::Property]
      # @yieldparam choice [String]
      # @yieldreturn [String, nil] how it reads; nil: as it is, with a capital letter
      # @return [Hash]
      def of(property)
        field = property.field
        return field unless field[:choices]

        field.merge(choices: field[:choices].map { |choice| [choice, (block_given? && yield(choice)) || capital(choice)] })
      end

      def capital(word) = word[0].upcase + word[1..].tr("_", " ")
    end
  end
end
