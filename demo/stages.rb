# frozen_string_literal: true

module Bavard
  module Demo
    # The stages of the demo show.
    module Stages
      # Pieces as kind and values, from back to front; a look by its key.
      ALL = [
        {name: "Dawn wide", size: [1920, 1080], backdrop: "dawn", pieces: [
          ["space", {"x" => 1350, "y" => 650, "width" => 503, "height" => 363, "called" => "Camera"}],
          ["now_line", {"x" => 1350, "y" => 596, "width" => 503, "height" => 46, "text_size_px" => 26, "plate_opacity" => 78,
                        "otherwise" => "In the net: a reed warbler\nNext round at half past six"}],
          ["clock", {"x" => 1560, "y" => 60, "width" => 293, "height" => 76, "text_size_px" => 46, "text_align" => "end",
                     "text_colour" => "house:ground"}],
          ["text", {"x" => 67, "y" => 60, "width" => 800, "height" => 76, "text_face" => "house:heading", "text_size_px" => 46,
                    "text_weight" => 700, "text_colour" => "house:ground", "words" => "Dawn ringing, east bank", "called" => "Title"}],
          ["goal", {"x" => 890, "y" => 940, "width" => 430, "height" => 120, "counted" => "subscriptions", "since" => "month",
                    "title" => "Nest boxes for the east bank",
                    "already" => 42, "to" => 60, "text_size_px" => 24, "called" => "Nest boxes"}],
          ["flurry", {"x" => 0, "y" => 0, "width" => 1920, "height" => 1080, "ways" => %w[fall drift rebound], "depth" => 40}],
          ["alerts", {"x" => 460, "y" => 150, "width" => 860, "height" => 280, "text_size_px" => 46}],
          ["voices", {"x" => 1350, "y" => 160, "width" => 503, "height" => 420, "at_most" => 4, "align" => "end", "text_size_px" => 26}],
          ["chat", {"x" => 67, "y" => 438, "width" => 795, "height" => 585, "text_size_px" => 31, "text_weight" => 600}]
        ]},
        {name: "Ringing table", size: [795, 585], backdrop: "table", pieces: [
          ["chat", {"x" => 24, "y" => 24, "width" => 747, "height" => 537, "text_size_px" => 24}, "field_notes"]
        ]},
        {name: "Round table", size: [1920, 1080], backdrop: "dawn", pieces: [
          ["voices", {"x" => 80, "y" => 110, "width" => 520, "height" => 470, "called" => "One below another"}],
          ["voices", {"x" => 700, "y" => 110, "width" => 520, "height" => 560, "arranged" => "grid", "columns" => 2, "name_place" => "below",
                      "names" => "first", "face_size" => 420, "face_round" => 50, "sign" => "ring", "at_most" => 4,
                      "plate_opacity" => 60, "called" => "Grid"}],
          ["voices", {"x" => 1290, "y" => 110, "width" => 560, "height" => 560, "arranged" => "arc", "name_place" => "below", "names" => "first",
                      "plate_for" => "none", "sign" => "lift", "sign_size" => 30, "face_size" => 330, "at_most" => 5,
                      "text_outline_px" => 2, "text_face" => "house:heading", "called" => "On an arc"}],
          ["portraits", {"x" => 330, "y" => 640, "width" => 1260, "height" => 440}]
        ]},
        {name: "Winter feeder", size: [1920, 1080], backdrop: "white", pieces: [
          ["goal", {"x" => 80, "y" => 80, "width" => 560, "height" => 130, "counted" => "subscriptions", "since" => "month", "already" => 42,
                    "title" => "Nest boxes for the east bank",
                    "to" => 60}],
          ["goal", {"x" => 80, "y" => 240, "width" => 560, "height" => 190, "counted" => "worth", "since" => "ever", "to" => 500, "already" => 120,
                    "drawn" => "ring", "title" => "A new net", "figures" => "percent", "goal_colour" => "#3f8f6b"}],
          ["goal", {"x" => 80, "y" => 460, "width" => 560, "height" => 190, "counted" => "followers", "since" => "ever", "from" => 4000,
                    "to" => 8000, "drawn" => "jar", "title" => "Friends of the marsh", "goal_colour" => "#2f7fa8"}],
          ["goal", {"x" => 80, "y" => 680, "width" => 560, "height" => 90, "counted" => "visits", "since" => "month", "to" => 5, "drawn" => "words",
                    "title" => "Hides that came to visit"}],
          ["challenge", {"x" => 700, "y" => 80, "width" => 620, "height" => 150, "title" => "Fill the winter feeder", "unit" => "seeds",
                         "total" => 300, "slips" => 2, "begins" => "follow"}],
          ["newest", {"x" => 700, "y" => 270, "width" => 270, "height" => 130, "since" => "ever"}],
          ["newest", {"x" => 990, "y" => 270, "width" => 330, "height" => 190, "since" => "month", "what" => "largest", "counted" => "worth",
                      "title" => "Largest tips this month"}],
          ["counter", {"x" => 700, "y" => 480, "width" => 620, "height" => 80, "words" => "Birds ringed: {count}",
                       "command" => "!ringed", "begins_at" => 37}],
          ["shout_out", {"x" => 1370, "y" => 80, "width" => 500, "height" => 300, "text_size_px" => 24}],
          ["flurry", {"x" => 700, "y" => 590, "width" => 1160, "height" => 290, "ways" => %w[pile], "emote_px" => 72, "length_s" => 8}],
          ["alerts", {"x" => 1000, "y" => 600, "width" => 700, "height" => 220, "text_size_px" => 40}],
          ["captions", {"x" => 260, "y" => 900, "width" => 1400, "height" => 150}]
        ]},
        {name: "Interval", size: [1920, 1080], backdrop: "thermal", pieces: [
          ["text", {"x" => 360, "y" => 330, "width" => 1200, "height" => 120, "text_face" => "house:heading", "text_size_px" => 76,
                    "text_align" => "centre", "words" => "Back after the net round", "called" => "Title"}],
          ["clock", {"x" => 660, "y" => 470, "width" => 600, "height" => 160, "text_size_px" => 120, "text_align" => "centre",
                     "clock" => "length", "minutes" => 10, "after" => "any moment now"}],
          ["portraits", {"x" => 460, "y" => 640, "width" => 1000, "height" => 316}],
          ["room_card", {"x" => 1340, "y" => 60, "width" => 520, "height" => 180, "join" => "Come and sit with us"}],
          ["chat", {"x" => 0, "y" => 960, "width" => 1920, "height" => 90, "text_size_px" => 32}, "one_line"]
        ]}
      ].freeze
    end
  end
end
