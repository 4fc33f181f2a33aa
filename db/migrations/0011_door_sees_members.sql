-- Who comes in, in which shop and as what, is read at the door with one statement a request.
CREATE POLICY at_the_door ON member FOR SELECT USING (at_the_door());
--> statement-breakpoint
CREATE POLICY at_the_door ON shop FOR SELECT USING (at_the_door());
