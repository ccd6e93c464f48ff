# frozen_string_literal: true

require "forwardable"
require_relative "../live/pictures/faces_unpacked"
require_relative "http/remembered"
require_relative "links/microphone_socket"

module Bavard
  module Web
    # What the pages rest on; every request finds it in its env.
    #
    # means:: Live::Means, what running shows rest on as well; imports:: Live::Imports; takings:: Live::Takings; fetcher:: Pictures::Fetcher
    # set_imports:: Live::SetImports
    # scripts:: Live::Script by key, for rehearsals
    # address:: where letters say that Bavard is, such as "http://127.0.0.1:4600"
    # cabinet:: Pictures::Cabinet, whose pictures are handed out; films and sounds:: folders of those, likewise;
    # backdrops:: Live::Backdrops; faces:: a folder of faces, the shipped ones unpacked and the hosts’ own
    # proxies and hosts:: as TrueClient takes them
    # media:: Fair::Turns in which films, sounds and faces are made anew
    # outflow:: Outflow, by which large files go out, or nil
    # letters:: SignIn::Letters
    # accounts:: who may make one: "open", "invited" or "closed"; begin_key:: with which the first one is made all the same
    # metrics:: who may read them, as Operations.readers gives it, or nil: this machine
    # now_secret:: for addresses that take something; database_url:: for processes of their own; replays:: Live::Replays
    # cookie:: name of the session's cookie: its own for each port, for browsers keep cookies by host alone
    Site = Struct.new(:means, :imports, :takings, :fetcher, :scripts, :shows, :db, :session_secret, :now_secret, :cookie, :letters, :address,
      :cabinet, :films, :sounds, :backdrops, :faces, :accounts, :begin_key, :proxies, :hosts, :database_url, :replays, :outflow, :media,
      :set_imports, :metrics, keyword_init: true) do
      extend Forwardable

      def_delegators :means, :stores, :journal, :disk, :hub, :ids, :clock, :log, :meters, :mishaps, :pictures, :platforms, :door, :conversations

      # @return [Core::Reading::TypeCase] made when something is first measured
      def type_case
        @type_case ||= Live::FacesUnpacked.type_case(faces)
      end

      # @return [MicrophoneSocket::Topics]
      def microphone_topics = @microphone_topics ||= MicrophoneSocket::Topics.new

      # @return [Remembered] who is who while the database does not answer
      def remembered = @remembered ||= Remembered.new(clock)

      # Puts the site into each request's env.
      def in(app)
        remembered
        microphone_topics
        lambda do |env|
          env["bavard.site"] = self
          app.call(env)
        end
      end
    end
  end
end
