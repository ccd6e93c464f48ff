# frozen_string_literal: true

module Bavard
  module Core
    module Lead
      # The ways that come after the first: to a second platform, voices, alerts and somebody who helps. Each ends in something that was
      # seen on the picture, stands where it is done, and does not come again once it is over.
      #
      #   SmallSteps.of("voices", Facts.new(…), {}).map(&:state)   # => ["done", "now", "later"]
      module SmallSteps
        # chats:: those there are; rooms:: names of voice rooms somebody is in
        # voices_on, alerts_on:: stages that show them on air
        # talked:: who talked last while a screen showed it; played:: what played last on a screen; each nil: nobody, nothing
        # invited, joined:: whoever was last, or nil; pulled:: by whom, of those who help, a line was pulled off the picture
        Facts = Struct.new(:chats, :rooms, :voices_on, :alerts_on, :talked, :played, :invited, :joined, :pulled, keyword_init: true)
        # service:: chats of one platform have the same; live, heard, painted:: whether it is read, a line came, a screen painted one
        Chat = Struct.new(:name, :service, :live, :heard, :painted)
        # state:: "done", "now" or "later"; to:: where it is done, nil: here
        Step = Struct.new(:key, :title, :words, :state, :to)
        STAGE = "/stage"
        # By key: its title, and its steps with what is asked for and where that is done.
        LEADS = {
          "platform" => ["A second platform", {
            "connect" => ["Connected", "Connect a chat of another platform, above."],
            "heard" => ["Heard", "A line of each has to come in. Write one there yourself."],
            "painted" => ["On the picture", "Done when your program has painted a line of each."]
          }],
          "voices" => ["Voices on the picture", {
            "room" => ["A voice room", "Connect a platform with voice rooms, or microphones of your own, and be in it."],
            "on" => ["A place on the stage", "Add Voices or Portraits there, and put it on air.", STAGE],
            "talked" => ["On the picture", "Say something: done when your program shows who talks."]
          }],
          "alerts" => ["Alerts that play", {
            "on" => ["A place on the stage", "Add Alerts there, and put it on air.", STAGE],
            "played" => ["On the picture", "Try an event on the screens: done when it has played in your program."]
          }],
          "moderators" => ["Somebody who helps", {
            "invited" => ["Invited", "Make a link for them as moderator, and send it to them."],
            "joined" => ["Here", "They open the link, and sign in with an account of their own."],
            "pulled" => ["Seen on the picture", "Done when a line that they pull has left the picture."]
          }]
        }.freeze

        module_function

        # @param lead [String] of LEADS
        # @param done [Hash{String => Integer}] what was seen before, and when
        # @return [Array<Step>]
        def of(lead, facts, done)
          asked = LEADS.fetch(lead).last
          said = asked.keys.to_h { |key| [key, said(lead, key, facts)] }
          now = asked.keys.find { |key| !done.key?(key) && !said[key] }
          asked.map do |key, (title, words, to)|
            state = done.key?(key) || said[key] ? "done" : "later"
            state = "now" if key == now
            Step.new(key, title, said[key] || words, state, state == "done" ? nil : to)
          end
        end

        # @return [String, nil] what was seen of a step, in words
        def said(lead, key, facts)
          case lead
          when "platform" then platforms(facts.chats, {"connect" => :live, "heard" => :heard, "painted" => :painted}.fetch(key), key)
          when "voices" then voices(key, facts)
          when "alerts" then alerts(key, facts)
          when "moderators" then moderators(key, facts)
          end
        end

        def platforms(chats, what, key)
          names = chats.select(&what).uniq(&:service).map(&:name)
          return if names.size < 2

          both = "#{names[0..-2].join(", ")} and #{names.last}"
          {"connect" => "#{both} are connected.", "heard" => "#{both} are heard.", "painted" => "Lines of #{both} were painted."}.fetch(key)
        end

        def voices(key, facts)
          case key
          when "room" then facts.rooms.any? ? "#{facts.rooms.first} is connected, with somebody in it." : nil
          when "on" then on(facts.voices_on)
          when "talked" then facts.talked && "#{facts.talked} talked, and your program showed it."
          end
        end

        def alerts(key, facts)
          key == "on" ? on(facts.alerts_on) : facts.played && "“#{facts.played}” has played in your program."
        end

        def moderators(key, facts)
          case key
          when "invited" then facts.invited && "#{facts.invited} is invited."
          when "joined" then facts.joined && "#{facts.joined} is here."
          when "pulled" then facts.pulled && "#{facts.pulled} pulled a line, and it left the picture."
          end
        end

        def on(stages) = stages.any? ? "On air, on #{stages.first}." : nil

        private_class_method :said, :platforms, :voices, :alerts, :moderators, :on
      end
    end
  end
end
