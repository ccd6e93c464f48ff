# frozen_string_literal: true

module Bavard
  # What went wrong, in words a host can act on.
  #
  #   raise Bavard::Error.new("The port is a number from 1 to 65535.", field: "port", value: "0")
  class Error < StandardError
    # With which a program ends where a setting cannot be read: as sysexits.h has it.
    SET_UP_WRONG = 78

    # @return [String, nil] the form field or document path it is about
    attr_reader :field
    # @return [Object, nil] the offending value
    attr_reader :value

    def initialize(message, field: nil, value: nil)
      super(message)
      @field = field
      @value = value
    end

    # @return [String] the same as the rest of a sentence that ends after it
    def reason = message.delete_suffix(".").sub(/\A(?:There|That|This|It|They|None|Another|Only)\b/, &:downcase)
  end

  # What somebody asks for by its name or number is not there: never was, is gone, or belongs to others.
  class NotThere < Error; end
end
