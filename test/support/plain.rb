# frozen_string_literal: true

require "minitest/autorun"
