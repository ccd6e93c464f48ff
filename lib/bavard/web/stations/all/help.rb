# frozen_string_literal: true

require "erb"
require "json"
require_relative "icon"

module Bavard
  module Web
    # What a question mark says: two sentences on what it stands beside, and which small moving picture shows it (by name in
    # assets/js/house/scenes.js).
    module Help
      # title:: what it is about; words:: two sentences; scene:: the picture
      Topic = Struct.new(:title, :words, :scene)
      TOPICS = {
        "feeds" => ["Feeds", "merge",
          "Each chat that you connect has a lane here, and all lanes become one stream.",
          "A lane says whether it is read, and where it is not, why and what to do."],
        "sets" => ["Sets of emotes", "code",
          "Some platforms have sets of emotes that any host may use.",
          "Choose which: their codes become pictures in every chat, not only there."],
        "microphones" => ["Microphones", "talk",
          "Each person opens a link of their own, and their browser tells who talks.",
          "What they say stays with them: only how loud it is goes out."],
        "inbox" => ["An address of your own", "letter",
          "Whatever can send signed JSON can write here, as a chat of its own.",
          "The key is shown once; a new one ends the old."],
        "describe" => ["Describe a platform", "braces",
          "A description says how a platform's messages become lines, step by step.",
          "Record what it sends, and see beside each other what it sends and what viewers would see."],
        "gate" => ["The gate", "gate",
          "Every line passes these rules from top to bottom, and the first that minds it decides.",
          "What was kept off stands in the log with the rule's name, and can be let go."],
        "hold" => ["Hold before air", "hold",
          "Each line waits for so long before viewers see it, with its time in the prompter.",
          "Whoever pulls it meanwhile was in time: it never shows."],
        "try" => ["Try a line", "try",
          "Type what a viewer might write, and see what the rules would make of it.",
          "Nothing of it reaches anybody."],
        "replay" => ["What your edit would have changed", "replay",
          "Lines of the last days are judged again by the rules as they stand here.",
          "You see what would be kept off and what would come through, before it counts."],
        "left_out" => ["People left out", "left",
          "Nothing of theirs is shown, in whatever chat they write under that name.",
          "They are not told, and can be taken back at any time."],
        "people" => ["People of this show", "help",
          "A moderator reads along, pulls lines and lets them go; a director may change stages and rules as well.",
          "What anybody does is kept with their name, and most of it can be taken back."],
        "log" => ["The log", "log",
          "All that came in, with what became of it: shown, held, pulled, or kept off and by which rule.",
          "Press a line to follow its way; search for a person, and all they wrote can be erased."],
        "dress" => ["Emotes", "code",
          "Drop pictures, and their codes become pictures on every line, at once also on those that stand.",
          "Of two shelves that know one code the upper wins."],
        "badges" => ["Badges", "badge",
          "They come by themselves, as platforms send them.",
          "Put a picture of your own in the place of any."],
        "cast" => ["The cast", "talk",
          "Whoever was in a voice room stands here, and can have faces for silent, talking, muted and away.",
          "Pieces on the stage show them as they talk."],
        "cues" => ["The cue sheet", "score",
          "A cue says what viewers see and hear when something happens: a follow, a tip, a goal that is reached.",
          "Of those that fit, the most specific plays."],
        "queue" => ["The queue", "queue",
          "Alerts play one after another, the most important first.",
          "Skip one, pause all, or let each wait until somebody lets it go."],
        "files" => ["Sounds and films", "wave",
          "What you drop here is made anew, so that nothing hidden comes along, and made as loud as the others.",
          "Where it is used is said beside it."],
        "fellows" => ["Shout-outs", "card",
          "A card introduces another host: a picture, a few words, and where they broadcast.",
          "It plays by a press here, by a line in chat, or when they come by."],
        "stage" => ["The draft", "draft",
          "All that you change here is your draft, and only you see it.",
          "Viewers see it when you press Put on air; every revision can be brought back."],
        "air" => ["Links", "link",
          "Each stage has a link, which your broadcast program shows as a browser source above your camera.",
          "Whoever has it sees the stage: a new link ends the old one."],
        "times" => ["From keyboard to screen", "times",
          "How long lines took from their arrival until a screen had painted them, the hold left out.",
          "Half were faster than the first figure, ninety-nine in a hundred than the last."],
        "checks" => ["Before you go live", "checks",
          "All that commonly goes wrong is looked at, again and again.",
          "Each says what it looked at, and what one press can mend has that press beside it."],
        "report" => ["The report", "report",
          "What one broadcast came to: lines, people, what was kept off, events, and what screens had trouble with.",
          "Choose another span of the last week above, or take it along as a file."]
      }.transform_values { |title, scene, *sentences| Topic.new(title, sentences.join(" "), scene) }.freeze

      # @param key [String] of TOPICS
      # @return [String] markup of the question mark
      def help(key)
        topic = TOPICS.fetch(key)
        said = ERB::Util.html_escape(JSON.generate(topic.to_h))
        label = "What is this: #{topic.title}"
        %(<button class="help" type="button" data-help="#{said}" aria-expanded="false" aria-label="#{label}">#{Icon.svg("circle-help")}</button>)
      end
    end
  end
end
