# frozen_string_literal: true

module Bavard
  module Core
    module Gate
      module Words
        # Where rows of flags' letters, and of letters in dark circles and squares begin.
        ROWS = [0x1F1E6, 0x1F150, 0x1F170].freeze
        # What some characters read as that neither a normalisation form nor the table of UTS #39 takes to plain letters.
        LOOK_ALIKES = {
          "ß" => "ss", "æ" => "ae", "Æ" => "ae", "œ" => "oe", "Œ" => "oe", "ø" => "o", "Ø" => "o", "đ" => "d", "Đ" => "d", "ð" => "d", "Ð" => "d",
          "þ" => "p", "Þ" => "p", "ł" => "l", "Ł" => "l", "ı" => "i", "ĸ" => "k", "ŋ" => "n", "ħ" => "h", "Ħ" => "h", "ŧ" => "t", "Ŧ" => "t",
          "€" => "e", "£" => "l", "¥" => "y", "¢" => "c", "§" => "s", "×" => "x", "¡" => "|", "№" => "no", "∂" => "d", "ƒ" => "f", "†" => "t",
          "。" => ".", "｡" => ".", "·" => ".", "•" => ".", "∙" => ".", "⋅" => ".", "․" => ".", "’" => "'", "‘" => "'", "ʼ" => "'",
          "“" => "\"", "”" => "\"", "–" => "-", "—" => "-", "‐" => "-", "‑" => "-", "−" => "-"
        }.merge(
          # Small capitals.
          "ᴀʙᴄᴅᴇꜰɢʜɪᴊᴋʟᴍɴᴏᴘꞯʀꜱᴛᴜᴠᴡʏᴢ".each_char.zip("abcdefghijklmnopqrstuvwyz".each_char).to_h,
          # Turned upside down.
          {"ɐ" => "a", "ǝ" => "e", "ɟ" => "f", "ɥ" => "h", "ᴉ" => "i", "ɾ" => "j", "ʞ" => "k", "ɯ" => "m", "ɹ" => "r", "ʇ" => "t", "ʌ" => "v",
           "ʍ" => "w", "ʎ" => "y", "ɓ" => "b", "ɗ" => "d", "ɠ" => "g", "ɦ" => "h", "ɨ" => "i", "ɫ" => "l", "ɱ" => "m", "ɲ" => "n", "ɵ" => "o",
           "ʋ" => "u", "ʉ" => "u", "ʂ" => "s", "ʐ" => "z", "ɛ" => "e", "ɜ" => "e", "ɩ" => "i", "α" => "a", "ε" => "e", "η" => "n", "κ" => "k",
           "τ" => "t", "χ" => "x", "ω" => "w", "Σ" => "e", "Ω" => "o", "в" => "b", "к" => "k", "м" => "m", "н" => "h", "т" => "t", "ш" => "w",
           "п" => "n", "ц" => "u", "я" => "r", "Я" => "r", "и" => "n", "ᴎ" => "n", "ζ" => "z", "ǫ" => "q",
           "β" => "b", "з" => "3", "ʒ" => "3"},
          # Flags' letters, and letters in dark circles and squares.
          ROWS.flat_map { |row| ("a".."z").each_with_index.map { |letter, index| [[row + index].pack("U"), letter] } }.to_h,
          # Digits in dark circles.
          (1..9).to_h { |digit| [[0x2775 + digit].pack("U"), digit.to_s] }
        ).freeze
      end
    end
  end
end
