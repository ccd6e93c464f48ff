# frozen_string_literal: true

require_relative "../../error"
require_relative "../../fair/places"

module Bavard
  module Web
    # What is asked of a show at a link, with no account. A show that is slow to answer, as one that its own host drowns, holds so many
    # threads of the web and no more; whoever comes above that is sent away at once.
    module Asking
      PLACES = Fair::Places.new(of_all: 24, of_one: 4)

      module_function

      # @param show [Live::Show]
      # @yieldparam [Live::Show] in its own thread
      # @return what the block gives
      # @raise [Busy]
      def of(show, &work)
        raise Busy, "Enough of this show is being answered just now. Try again in a moment." unless PLACES.take?(show.id)

        begin
          show.ask(&work)
        ensure
          PLACES.leave(show.id)
        end
      end
    end
  end
end
