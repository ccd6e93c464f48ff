# frozen_string_literal: true

module Bavard
  module Core
    module Find
      # What people call a setting, by how its name ends: the longest ending that fits counts.
      module Everyday
        WORDS = {
          "text_size_px" => "big bigger large larger tiny small smaller font letters zoom",
          "_size" => "big bigger large tiny small",
          "face" => "font typeface letters handwriting",
          "weight" => "bold thick thin heavy",
          "stay_ms" => "gone vanishes disappears leaves goes away too fast quickly longer",
          "stay_by" => "gone vanishes disappears leaves goes away too fast quickly long enough",
          "keep_last" => "empty gone disappears always there old",
          "reading_speed" => "goes away too fast slow reader",
          "shadow_blur_px" => "blurry soft glow",
          "shadow_opacity" => "glow unreadable contrast",
          "outline_px" => "border edge stroke around unreadable contrast",
          "border_side" => "edge",
          "side" => "behind camera in front under over layer",
          "plate_opacity" => "background box transparent see through",
          "plate_colour" => "background box",
          "plate_gradient" => "background fade",
          "plate_frame" => "background image frame",
          "avatars" => "faces profile pictures people",
          "badges" => "icons emblems moderator subscriber",
          "marks" => "platform logo symbol source which chat",
          "emote_size" => "emoji smileys big",
          "emotes_alone" => "emoji smileys big",
          "emote_motion" => "emoji moving still gif animation",
          "motion_in" => "animation appear slide fly come in",
          "motion_out" => "animation leave disappear",
          "motion_in_ms" => "animation speed slow fast",
          "newest" => "order direction upside down top bottom",
          "flow" => "ticker scroll running text",
          "at_most" => "how many number maximum",
          "gap" => "space between distance spacing",
          "times" => "clock hour timestamp",
          "names" => "nick user hide",
          "name_colour" => "user colours people",
          "opacity" => "transparent see through invisible faint",
          "hidden" => "invisible switch off show hide",
          "locked" => "fixed cannot move stuck",
          "volume" => "loud quiet silent noise",
          "already" => "start begins with count",
          "since" => "start begins reset zero",
          "anew" => "reset zero start again",
          "underline" => "line below",
          "letter_spacing" => "distance letters wide",
          "case" => "capitals upper lower",
          "round_top_start" => "corners sharp round",
          "turn" => "rotate crooked tilted",
          "tilt" => "rotate perspective",
          "own_css" => "code style",
          "called" => "name rename",
          "highlight_form" => "mark mention question",
          "goal_colour" => "bar colour",
          "drawn" => "bar ring shape",
          "figures" => "numbers percent"
        }.transform_values(&:split).freeze

        # @param name [String] of a property
        # @return [Array<String>]
        def self.of(name) = WORDS[WORDS.keys.select { |ending| name.end_with?(ending) }.max_by(&:length)] || []
      end
    end
  end
end
