# frozen_string_literal: true

require "logger"
require "stringio"
require_relative "../support/web_test"

# Who is signed in is looked up for each request, in time that does not grow with what their show holds.
class VisitorTest < WebTest
  DOCUMENTS = %w[gate cues].freeze

  def setup
    super
    sign_up
  end

  # @return [Array<String>] what was asked of the table of shows
  def asked
    told = StringIO.new
    db.loggers << Logger.new(told)
    yield
    told.string.scan(/SELECT .* FROM "shows".*/)
  ensure
    db.loggers.clear
  end

  def test_no_long_document_is_read_for_a_page
    # It wakes with all that it has.
    get "/people/"
    found = asked { get "/people/" }
    assert_equal 200, last_response.status
    assert_operator found.size, :>, 0
    assert_empty(found.select { |sql| sql.include?("SELECT *") || DOCUMENTS.any? { |name| sql.include?(%("#{name}")) } })
  end

  def test_what_is_known_in_brief_is_what_is_kept
    shows = stores.shows
    shows.keep_small_leads(@record.id, {"second" => {"over" => true}})
    shows.keep_for(@record.id, 9)
    [shows.brief(@record.id), shows.brief_of_account(@record.account_id)].each do |brief|
      assert_equal shows.find(@record.id).to_h.slice(*brief.members), brief.to_h
    end
    assert_equal [nil, nil], [shows.brief(0), shows.brief_of_account(0)]
  end
end
