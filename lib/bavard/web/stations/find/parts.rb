# frozen_string_literal: true

module Bavard
  module Web
    class FindApp < Station
      # Parts of the stations, and what belongs to whoever is signed in: what has a heading, but no piece, rule or cue of its own.
      module Parts
        # label:: as its heading says; where:: of which page, or nil; at:: its address; right:: of Core::Rights, to see it, nil: everybody
        # may; also:: other words for it
        Part = Struct.new(:label, :where, :at, :right, :also)
        ALL = [
          ["Hold before air", "Gate", "/gate#hold-row", :act, "delay wait seconds buffer later"],
          ["Brake", "Gate", "/gate#brake-row", :act, "slow stop everything emergency panic raid flood"],
          ["Sets of rules", "Gate", "/gate#sets", :act, "strict filter switch"],
          ["Try a line", "Gate", "/gate#trial-title", :act, "test why blocked check"],
          ["What your edit would have changed", "Gate", "/gate#replay-title", :act, "replay simulate last hour"],
          ["People left out", "Gate", "/gate#left-out-title", :act, "ban block mute ignore forgive"],
          ["Before you go live", "Air", "/links#checks-title", :direct, "checklist problems ready wrong"],
          ["From keyboard to screen", "Air", "/links#times-title", :direct, "latency delay how long slow"],
          ["Into the broadcast", "Air", "/links#how-title", :direct, "browser source add program width height"],
          ["Name of the show", "People", "/people/#names", :own, "rename title host called"],
          ["Invite somebody", "People", "/people/#invite", :own, "moderator helper team friend link role"],
          ["Where you are signed in", nil, "/account/places", nil, "sessions devices sign out everywhere"],
          ["Second factor", nil, "/account/multifactor-manage", nil, "two app codes recovery security"],
          ["Change the password", nil, "/account/change-password", nil, "sign in security"]
        ].map { |part| Part.new(*part).freeze }.freeze

        # @param visitor [Visitor]
        # @return [Array<Core::Find::Entry>] those that they may see
        def self.of(visitor)
          ALL.select { |part| part.right.nil? || visitor.may?(part.right) }
            .map { |part| Core::Find::Entry.new(kind: "part", label: part.label, where: part.where, at: part.at, also: part.also.split) }
        end
      end
    end
  end
end
