# frozen_string_literal: true

require "json"
require "sinatra/base"
require_relative "../../error"
require_relative "../http/bare_page"
require_relative "../http/bodies"
require_relative "../../feeds/activities"

module Bavard
  module Web
    # /in/<token>: takes one signed activity (ActivityStreams 2.0) a request. Documented with an example in
    # docs/sending.md.
    class InboxApp < Sinatra::Base
      LARGEST_BODY_BYTES = Bodies.most("/in/")
      set :show_exceptions, false
      set :raise_errors, true
      set :dump_errors, false
      set :protection, false
      set :host_authorization, permitted_hosts: []

      # The signatures seen lately, for all addresses together.
      SEEN = Feeds::Activities::Signature.new

      # What is sent here is one body, whatever it is called: it is no form, and not read as one before its signature is.
      def call(env)
        super(env.merge("CONTENT_TYPE" => "application/octet-stream"))
      end

      post "/:token" do
        content_type :json
        site = env["bavard.site"]
        show, lane = site.shows.by_inbox(params[:token])
        halt 404, JSON.generate(error: "Nothing is taken at this address.") unless lane
        if request.content_length.to_i > LARGEST_BODY_BYTES
          halt 413,
            JSON.generate(error: "An activity has room for #{LARGEST_BODY_BYTES / 1024} KB.")
        end

        intake = handed_in(show, lane, request.body.read(LARGEST_BODY_BYTES + 1).to_s)
        status 202
        JSON.generate(taken: intake&.then { |one| one.platform_id || one.body })
      rescue Error => error
        site.mishaps.rejected(:inbox, error.message)
        status error.field.to_s.match?(/\A(?:timestamp|signature)\z/) ? 401 : error.status
        JSON.generate(error: error.message, field: error.field)
      end

      error(Sinatra::BadRequest) do
        content_type :json
        JSON.generate(error: BarePage::UNREAD)
      end

      # Somebody who opens it to see what it is.
      get(/.*/) do
        content_type :json
        halt 405, {"allow" => "POST"}, JSON.generate(error: "Activities are sent here with POST, each signed.")
      end

      private

      # @return [Core::Intake, nil] nil of a heartbeat: nothing that is signed
      def handed_in(show, lane, body)
        raise Error.new("This address is switched off just now.", field: "feed") unless lane.feed.wanted

        now_ms = env["bavard.site"].clock.call
        signature = SEEN.check(lane.feed.password, request.get_header("HTTP_BAVARD_TIMESTAMP"), request.get_header("HTTP_BAVARD_SIGNATURE"), body,
          now_ms)
        lane.connection&.heard
        return if body.empty?

        Feeds::Activities::Reading.read(body, lane.id, now_ms, fallback_id: "sig:#{signature}").tap { |intake| show.hand_in(lane, intake) }
      rescue Busy
        SEEN.forget(signature)
        raise
      end
    end
  end
end
