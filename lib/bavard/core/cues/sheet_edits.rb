# frozen_string_literal: true

require_relative "../../error"
require_relative "cue"
require_relative "settings"

module Bavard
  module Core
    module Cues
      # Edits of a cue sheet. Each takes the document as it is at that moment, names what it changes, and gives another one: what somebody
      # else changed meanwhile stays as they left it.
      module SheetEdits
        ID = /\A[a-z0-9_]{1,40}\z/

        module_function

        # Another cue, behind all others. Where all that there are for its kind of event are said alike, it is as well.
        #
        # @param id [String] of its own
        # @param kind [String] of KINDS
        # @raise [Bavard::Error]
        def add(document, id, kind)
          words = Cue::DEFAULT_WORDS[kind] || "{name}"
          with(document, document["cues"] + [Cue.build(id, "kind" => kind, "name" => "Another", "words" => words, **said_alike(document, kind))])
        end

        # @return [Hash] how all cues for a kind of event are said; empty where they differ or there is none
        def said_alike(document, kind)
          manners = document["cues"].select { |cue| cue["kind"] == kind }.map { |cue| cue.slice(*Cue::SPOKEN.map(&:name)) }.uniq
          manners.one? ? manners.first : {}
        end

        # @param values [Hash] some of its properties
        # @raise [Bavard::Gone]
        # @raise [Bavard::Error] naming the first that does not fit
        def set(document, id, values) = in_place(document, id) { |cue| Cue.build(id, cue.except("id").merge(values)) }

        # @param picture [String, nil] id of the picture it shows
        # @raise [Bavard::Gone]
        def picture(document, id, picture) = in_place(document, id) { |cue| cue.merge("picture" => picture) }

        # All cues for the same kind of event are said aloud as one of them is.
        #
        # @raise [Bavard::Gone]
        def speak_alike(document, id)
          model = document["cues"].find { |cue| cue["id"] == id } || gone
          said = model.slice(*Cue::SPOKEN.map(&:name))
          with(document, document["cues"].map { |cue| cue["kind"] == model["kind"] ? cue.merge(said) : cue })
        end

        # @param by [Integer] places, towards the end where it is positive
        # @raise [Bavard::Gone]
        def move(document, id, by)
          cues = document["cues"].dup
          at = cues.index { |cue| cue["id"] == id } || gone
          with(document, cues.insert((at + by).clamp(0, cues.size - 1), cues.delete_at(at)))
        end

        # One that is not there is taken away already.
        def remove(document, id) = with(document, document["cues"].reject { |cue| cue["id"] == id })

        # What was taken away, as it was, behind all others.
        #
        # @param given [Hash] a cue with its id
        # @raise [Bavard::Error]
        def put_back(document, given)
          cue = Cue.build(given["id"].to_s[ID] || gone, given.slice(*Cue::PROPERTIES.keys))
          remove(document, cue["id"]).then { |others| with(others, others["cues"] + [cue]) }
        end

        # @param values [Hash] some of how the queue behaves
        def queue(document, values) = document.merge("queue" => Settings.queue(document["queue"].merge(values)))

        def in_place(document, id)
          document["cues"].any? { |cue| cue["id"] == id } || gone
          with(document, document["cues"].map { |cue| cue["id"] == id ? yield(cue) : cue })
        end

        def with(document, cues) = document.merge("cues" => cues)
        def gone = raise(Gone.new("That cue is no longer on the sheet.", field: "cue"))

        private_class_method :in_place, :with, :gone, :said_alike
      end
    end
  end
end
