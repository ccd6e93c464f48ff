# frozen_string_literal: true

require_relative "../../../core/look/plate_hand"

module Bavard
  module Web
    # How the Stage's inspector words what can be set, and of what use that is.
    module StageWords
      # How values read where the value itself is not the word.
      WORDS = {
        "shown" => "Shown", "none" => "None", "theirs" => "Theirs", "one" => "One", "person" => "Per person", "line" => "Per line",
        "feed" => "Per feed", "role" => "Per role", "typed" => "As typed", "upper" => "UPPER", "lower" => "lower", "login" => "As they sign in",
        "spoken" => "As it is said", "minutes" => "07:24", "seconds" => "07:24:05", "age" => "3 min", "rows" => "Each row", "all" => "One for all",
        "turn" => "In turn", "stack" => "Standing", "ticker" => "Running by", "time" => "A set time", "reading" => "To be read", "full" => "Full",
        "ring" => "Ring", "said" => "Lines", "action" => "Actions", "reply" => "Replies", "paid" => "Paid lines", "follow" => "Follows",
        "subscription" => "Subscriptions", "renewal" => "Renewals", "gift" => "Gifts", "tip" => "Tips", "purchase" => "Purchases",
        "visit" => "Visits", "cause" => "Gifts to a good cause", "own" => "The host’s own",
        "everyone" => "Everyone", "text" => "The text", "piece" => "The piece"
      }.freeze
      # The same value may read otherwise for one property.
      OWN = {
        "plate_shape" => {"rounded" => "Rounded", "cut" => "Corners cut off", "bitten" => "Corners bitten out", "stepped" => "Corners in steps",
                          "slanted" => "Slanted", "pointed" => "Pointed ends", "ribbon" => "Ribbon", "label" => "Label with a hole",
                          "tape" => "Strip of tape", "torn" => "Torn below", "stamp" => "Stamp", "scalloped" => "Scalloped", "burst" => "Burst"},
        "underline_form" => {"line" => "A line", "marker" => "A marker", "waves" => "Waves", "dots" => "Dots"},
        "step_form" => {"round" => "Round", "upright" => "Eggs", "square" => "Square", "slanted" => "Slanted"},
        "plate_held_by" => {"nothing" => "Nothing", "tape" => "Tape", "string" => "A string", "pin" => "A pin"},
        "name_form" => {"shown" => "As it is shown"},
        "plate_for" => {"line" => "Each line"},
        "name_plate_by" => {"one" => "One colour", "theirs" => "The name’s"}, "plate_by" => {"one" => "One colour"},
        "name_colour" => {"one" => "One"}, "line_sides" => {"one" => "One side"},
        "clock" => {"time" => "Time of day", "until" => "Until a time", "length" => "For a length", "stopwatch" => "Stopwatch"},
        "newest" => {"bottom" => "Bottom", "top" => "Top", "left" => "Left", "right" => "Right"},
        "shown" => {"talking" => "Only who talks", "lately" => "Who talked lately", "last" => "The last to talk"},
        "order" => {"fixed" => "As they came", "name" => "By name", "talked" => "Who talked last"},
        "names" => {"none" => "Not shown", "full" => "In full", "cut" => "Cut where long", "first" => "First word", "own" => "Your short one"},
        "name_place" => {"line" => "In line", "over" => "Over the face"},
        "arranged" => {"upright" => "One below another", "level" => "Side by side", "grid" => "Grid", "arc" => "On an arc"},
        "sign" => {"waves" => "Waves beside the name", "pen" => "A pen over the name",
                   "dimming" => "Others grow dim", "none" => "None"}, "sign_colour_by" => {"person" => "Each their own", "one" => "One colour"},
        "since" => {"broadcast" => "The broadcast", "day" => "The day", "month" => "The month", "ever" => "All time",
                    "start" => "A time of its own"},
        "drawn" => {"steps" => "Steps", "tally" => "Tally marks", "shape" => "Your own shape", "words" => "Words alone"},
        "figures" => {"both" => "6 of 60", "percent" => "10 %"},
        "ways" => {"fall" => "Falling", "rise" => "Rising", "drift" => "Drifting across", "rebound" => "Off the edges", "swing" => "Swinging in",
                   "circle" => "Circling", "pile" => "Piling up", "burst" => "Out of a point", "fountain" => "Up and outwards"},
        "what" => {"newest" => "The newest", "list" => "The newest few", "largest" => "The largest", "most" => "Who did most", "count" => "How many"},
        "runs" => {"up" => "Up", "down" => "Down"}, "begins" => {"hand" => "By hand"}, "ends_with" => {"hand" => "By hand"},
        "clip" => {"any" => "Any of them", "none" => "None"},
        "sized" => {"equal" => "Equally high", "own" => "As their pictures are"},
        "code" => {"none" => "None", "room" => "The room’s link", "own" => "Your own link"},
        **%w[marks badges avatars emotes times faces more their_message title picture count].to_h { |part| [part, {"none" => "Not shown"}] }
      }.freeze

      # What is of no use until something else is set: ending of a name => ending of what decides on it, and to what it must
      # be set (:some: more than nothing).
      # Where the choices of a text come from: the show's voice rooms, its cast.
      FROM = {"room" => "rooms", "person" => "cast", "shelves" => "shelves"}.freeze

      SHAPED = (Core::Look::PlateShape::SHAPES - [Core::Look::PlateShape::PLAIN]).freeze
      PATTERNED = (Core::Look::PlatePattern::PATTERNS - [Core::Look::PlatePattern::NONE]).freeze
      NEEDS = {
        "_to_colour" => ["_gradient", %w[across down slanted]], "_to_opacity" => ["_gradient", %w[across down slanted]],
        "_outline_colour" => ["_outline_px", :some], "_shadow_x_px" => ["_shadow_opacity", :some], "_shadow_y_px" => ["_shadow_opacity", :some],
        "_shadow_blur_px" => ["_shadow_opacity", :some], "_shadow_colour" => ["_shadow_opacity", :some], "_shadow_x" => ["_shadow_opacity", :some],
        "_shadow_y" => ["_shadow_opacity", :some], "_shadow_blur" => ["_shadow_opacity", :some], "_border_colour" => ["_border", :some],
        "_border_side" => ["_border", :some], "one_name_colour" => ["name_colour", %w[one role]], "name_column" => ["name_place", %w[column]],
        "plate_other_colour" => ["plate_by", %w[turn]], "plate_tail" => ["plate_shape", [Core::Look::PlateShape::PLAIN]],
        "_shape_size" => ["_shape", SHAPED], "goal_shape_size" => ["drawn", %w[shape]], "goal_shape" => ["drawn", %w[shape]],
        "goal_fills" => ["drawn", %w[shape]], "steps" => ["drawn", %w[steps tally]], "step_form" => ["drawn", %w[steps]],
        "_pattern_colour" => ["_pattern", PATTERNED], "_pattern_opacity" => ["_pattern", PATTERNED], "_pattern_size" => ["_pattern", PATTERNED],
        **%w[top_start top_end bottom_end bottom_start].to_h { |corner| ["plate_round_#{corner}", ["plate_shape", [Core::Look::PlateShape::PLAIN]]] },
        "_frame_part" => ["_frame", :some], "_frame_width" => ["_frame", :some],
        "_held_colour" => ["_held_by", Core::Look::PlateHand::HELD_BY - %w[nothing]],
        "_underline_form" => ["_underline", [true]], "_underline_colour" => ["_underline_form", %w[marker waves dots]],
        "ticker_speed" => ["flow", %w[ticker]], "separator" => ["flow", %w[ticker]],
        "reading_speed" => ["stay_by", %w[reading]], "stay_ms" => ["stay_by", %w[time]], "avatar_size" => ["avatars", %w[shown]],
        "avatar_round" => ["avatars", %w[shown]], "time_form" => ["times", %w[shown]], "badge_size" => ["badges", %w[shown]],
        "mark_form" => ["marks", %w[shown]], "mark_size" => ["marks", %w[shown]], "line_sides" => ["flow", %w[stack]],
        "starts" => ["since", %w[start]], "file_name" => ["source", %w[file]], "until" => ["clock", %w[until]], "minutes" => ["clock", %w[length]],
        "lately_s" => ["shown", %w[lately]], "columns" => ["arranged", %w[grid]], "arc_degrees" => ["arranged", %w[arc]],
        "sign_colour" => ["sign_colour_by", %w[one]],
        "sign_size" => ["sign", %w[guillemets ring lift glow bar pen]], "face_size" => ["faces", %w[shown]],
        "face_round" => ["faces", %w[shown]], "name_width" => ["names", %w[cut first own]], "link" => ["code", %w[own]],
        "swap_ms" => ["swap", %w[fade]], "unit" => ["counted", %w[worth cause]],
        "clock_form" => ["clock", %w[time]], "after" => ["clock", %w[until length]]
      }.freeze
    end
  end
end
