# frozen_string_literal: true

require_relative "../support/web_test"

# What somebody gains who has a copy of the database, and nothing else: no link that opens anything.
class StolenDatabaseTest < WebTest
  def setup
    super
    sign_up
    send_form("/stage/", "name" => "Main")
    send_json("/prompter/links", {name: "Panel", acts: true})
    @prompter = JSON.parse(last_response.body)["links"].first["link"][%r{/prompter/([\w-]+)/}, 1]
    @invitation = send_form("/people/invite", "name" => "Teo", "role" => "moderator")["link"].split("/").last
    @air = stores.stages.of_show(@record.id).first.token
  end

  # Everything that is in it.
  def stolen = db.tables.flat_map { |table| db[table].all.map(&:to_s) }.join

  def test_links_to_air_prompters_and_invitations
    [@air, @prompter, @invitation].each do |token|
      assert_operator token.length, :>=, 32
      refute_includes stolen, token
    end
  end

  def test_which_all_open_all_the_same
    assert_equal 200, get("/air/#{@air}").status
    assert_equal 200, get("/prompter/#{@prompter}/").status
    assert_equal 200, get("/people/join/#{@invitation}").status
  end

  def test_and_the_host_goes_on_seeing
    get "/links/"
    assert_includes last_response.body, @air
    get "/prompter/links"
    assert_includes last_response.body, @prompter
  end

  def test_nor_one_that_stood_there_in_the_open_before
    db[:stages].update(token: @air, token_digest: nil, token_closed: nil)
    db[:prompter_links].update(token: @prompter, token_digest: nil, token_closed: nil)
    db[:invitations].update(token: @invitation, token_digest: nil)
    test_which_all_open_all_the_same
    stores.stages.seal
    stores.team.seal
    test_links_to_air_prompters_and_invitations
    assert_equal [@air], stores.stages.of_show(@record.id).map(&:token)
    test_which_all_open_all_the_same
  end

  def test_a_new_link_after_the_old_one_is_as_closed
    stage = stores.stages.of_show(@record.id).first
    token = @shows.running.first.ask { |show| show.desks[stage.id].renew_link }
    wait_for("it to be kept") { stores.stages.find(stage.id).token == token }
    refute_includes stolen, token
    assert_nil stores.stages.by_token(@air)
  end
end
