# frozen_string_literal: true

require_relative "../all/station"

module Bavard
  module Web
    # Where somebody comes who signed in: a new show's host to the way from chat to air, as long as they did not put it aside; everybody
    # else to what comes in.
    class HomeApp < Station
      set :needs_to_see, :read

      get "/" do
        led = role == "owner" && ask { |show| show.record.lead&.then { |lead| !lead["left"] } }
        redirect(led ? "/lead/" : "/feeds")
      end
    end
  end
end
