# frozen_string_literal: true

require "rqrcode_core"

module Bavard
  module Core
    module OwnCode
      # A link as a QR code (ISO/IEC 18004), to be drawn as one path in a square of so many modules.
      module CodePath
        # Of light modules around it, as the standard wants them.
        QUIET = 4
        LONGEST = 400
        REMEMBERED = 50

        module_function

        # @param link [String]
        # @return [Array(Integer, String), nil] modules of a side with the quiet ones, and the d of an SVG path; nil for none
        def of(link)
          return if link.empty? || link.length > LONGEST

          @known = {} if @known.nil? || @known.size > REMEMBERED
          @known[link] ||= drawn(RQRCodeCore::QRCode.new(link, level: :m).modules)
        rescue RQRCodeCore::QRCodeRunTimeError
          nil
        end

        # Runs of dark modules, row by row.
        def drawn(rows)
          path = rows.each_with_index.flat_map do |row, y|
            runs = row.each_index.select { |x| row[x] }.slice_when { |one, other| other != one + 1 }
            runs.map { |run| "M#{run.first + QUIET} #{y + QUIET}h#{run.size}v1h-#{run.size}z" }
          end
          [rows.size + (2 * QUIET), path.join]
        end
        private_class_method :drawn
      end
    end
  end
end
