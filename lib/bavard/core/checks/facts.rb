# frozen_string_literal: true

module Bavard
  module Core
    # What is looked at before a broadcast.
    module Checks
      # What is known of a show.
      #
      # feeds:: [Feed]; gate:: Gate; stages:: [Stage]; texts:: [Text]; chats:: [Chat]; files:: Files; sounds:: Sounds; voices:: Voices
      # cues:: Cues; goals:: [Goal]
      Facts = Struct.new(:feeds, :gate, :stages, :texts, :chats, :files, :sounds, :voices, :cues, :goals, keyword_init: true)
      # state:: of Live's lanes; reason:: why it is not live, or nil; numbers:: {what each broadcast has another one of => what is set, or nil}
      # behind_ms:: how far its platform's clock is behind ours; 0 where both agree, nil where nobody knows
      Facts::Feed = Struct.new(:id, :name, :wanted, :state, :reason, :numbers, :behind_ms, keyword_init: true)
      # hold:: as Gate::Settings has it; brake:: in words, or nil; rules:: the name of the set in force
      Facts::Gate = Struct.new(:hold, :brake, :rules, keyword_init: true)
      # document:: what is on air, or nil; waiting:: how many changes are not; screens:: cards as Live::Screen gives them
      Facts::Stage = Struct.new(:id, :name, :document, :revision, :waiting, :screens, keyword_init: true)
      # A piece with words: how well its worst part can be read. over:: which picture; ways:: [Hash] what would make it clearer
      Facts::Text = Struct.new(:stage, :piece, :label, :ratio, :part, :over, :ways, keyword_init: true)
      # A chat piece on air. pace:: as Reading::Pace#report; by:: "time" or "reading"
      Facts::Chat = Struct.new(:stage, :piece, :label, :pace, :by, keyword_init: true)
      # many:: {kind => how many}; missing:: [[kind, where it is used]]
      Facts::Files = Struct.new(:many, :missing, keyword_init: true)
      # cues:: how many are heard; screens:: how many could be heard; heard:: the one that is, in words, or nil
      Facts::Sounds = Struct.new(:cues, :screens, :heard, keyword_init: true)
      # drawn:: whether a stage on air shows who talks; people:: [Voice::CastMember] those of the cast who are in the rooms
      Facts::Voices = Struct.new(:drawn, :people, keyword_init: true)
      # on:: how many are in force; own:: whether the host made any of them what it is; played_on:: names of stages that play them
      # findings:: [[name, why it does not play]]
      Facts::Cues = Struct.new(:on, :own, :played_on, :findings, keyword_init: true)
      # title:: in words; value, from, to:: numbers; since:: of Cues::Goal::SPANS; unread:: a start that cannot be read, or nil
      Facts::Goal = Struct.new(:stage, :title, :value, :from, :to, :since, :unread, keyword_init: true)

      # well:: whether there is nothing to do; at:: where it is set; mend:: Mend, or nil where no single press does it
      Finding = Struct.new(:key, :well, :title, :words, :at, :mend, keyword_init: true)
      # What one press sends. words:: on the button; form:: whether it goes as a form's
      Mend = Struct.new(:words, :path, :sends, :form, keyword_init: true)

      # The same words everywhere.
      module Saying
        private

        def well(title, words, at: nil, mend: nil) = Finding.new(key: self::KEY, well: true, title:, words:, at:, mend:)
        def look(title, words, at: nil, mend: nil) = Finding.new(key: self::KEY, well: false, title:, words:, at:, mend:)
        def many(count, thing, things = "#{thing}s") = "#{count} #{count == 1 ? thing : things}"
        def seconds(milliseconds) = "#{(milliseconds / 1000.0).round(1).to_s.delete_suffix(".0")} s"

        # The first few, and how many more.
        def named(names, most = 3, between: ", ")
          shown = names.first(most).join(between)
          names.size > most ? "#{shown} and #{names.size - most} more" : shown
        end
      end
    end
  end
end
