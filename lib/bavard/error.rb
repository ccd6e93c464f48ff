# frozen_string_literal: true

module Bavard
  # What went wrong, in words a host can act on. Its class says what there is to do about it, and with which status a page answers:
  # what is asked for does not fit (422, set it otherwise), is {Gone} (404), is in {Conflict} with what others did (409, look again),
  # or meets a program that is {Busy} (503, try again).
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

    # @return [Integer] the HTTP status of a page that has nothing else to say
    def status = 422

    # @return [Error] of the same class, so that what is to be done about it stays the same
    def in_words(message, field: nil) = self.class.new(message, field:)

    # @return [String] the same as the rest of a sentence that ends after it
    def reason = message.delete_suffix(".").sub(/\A(?:There|That|This|It|They|None|Another|Only)\b/, &:downcase)
  end

  # What somebody asks for by its name or number is not there: never was, is there no more, or belongs to others.
  class Gone < Error
    def status = 404
  end

  # Somebody else was first: what is asked for rests on what is not so any more.
  class Conflict < Error
    def status = 409
  end

  # There is no turn, no thread or no time for it just now.
  class Busy < Error
    def status = 503
  end
end
